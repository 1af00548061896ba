"use client";

import { ComputationState } from "@/features/study/ComputationState";
import { DrawnState } from "@/features/study/DrawnState";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { useParts } from "@/features/study/use-parts";
import { useSeen } from "@/features/study/use-seen";
import type { PowerResult } from "@/study/analyse/analyse-power";
import type { SimulatedPower } from "@/study/analyse/joined-samples";
import type { Hypothesis } from "@/study/model/hypothesis";
import { newId } from "@/study/model/new-id";
import { Power } from "@/study/model/power";
import { counted, formatCount, formatPlain, formatShare } from "@/study/report/format-number";
import { plain } from "@/study/report/words";
import { formatPower, POWER_REFUSED, powerSays, powerTable, samplesSay } from "@/study/report/theory/power-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { PowerCurve } from "@/ui/charts/PowerCurve";
import { FieldWord } from "@/ui/parts/FieldWord";
import { NumberWord } from "@/ui/parts/NumberWord";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { readNumber } from "@/ui/parts/read-number";
import { Said } from "@/ui/parts/Said";
import { SettingWord } from "@/ui/parts/SettingWord";
import css from "./theory.module.css";

const POWERS = [0.8, 0.9, 0.95];
const MISSING = [0, 0.02, 0.05, 0.1, 0.2];
const SKEWS = { "0": "normal", "1": "skewed", "2": "strongly skewed" } as const;

/** How many respondents a hypothesis needs: asked for, and then kept with it. */
export function PowerSection({ hypothesis, code }: { hypothesis: Hypothesis; code: string }) {
  const { study, store } = useStudy();
  const power = study.powers.find((p) => p.hypothesis === hypothesis.id);
  if (power) return <Respondents power={power} hypothesis={hypothesis} code={code} />;
  if (!["coefficient", "change"].includes(hypothesis.rests.on)) return null;
  const ask = () => {
    const id = newId(`respondents ${hypothesis.id}`, study.powers.map((p) => p.id)); // prettier-ignore
    store.edit({ subject: "power", id, to: Power.parse({ id, hypothesis: hypothesis.id }) });
  };
  return (
    <button type="button" className="link" onClick={ask}>
      How many respondents does {code} need?
    </button>
  );
}

function Respondents({ power, hypothesis, code }: { power: Power; hypothesis: Hypothesis; code: string }) {
  const { store, title } = useStudy();
  const computed = useAsked("power", power);
  useSeen("power", power, computed);
  const found: PowerResult | null = computed.result;
  const planned = found?.status === "planned" ? found : null;
  const change = (to: Partial<Power>) => void store.edit({ subject: "power", id: power.id, to: { ...power, ...to } });
  const ofStep = hypothesis.rests.on === "change";
  const table = planned && powerTable(planned, code);
  return (
    <section aria-label={`Respondents for ${code}`} className={css.respondents} aria-busy={computed.outdated}>
      <p className={css.settings}>
        With{" "}
        <NumberWord
          label="Respondents"
          value={power.n}
          text={planned ? counted(planned.n, "respondent") : "so many respondents"}
          rule="A whole number from 5; empty for those of the sample."
          whole
          least={5}
          most={10_000_000}
          onChange={(n) => change({ n })}
        />{" "}
        and <i>R</i>² ={" "}
        <NumberWord
          label="R²"
          value={power.R2}
          text={planned ? formatShare(planned.R2) : "…"}
          rule="R² of the model with it, 0 to .99; empty for that of the sample."
          least={0}
          most={0.99}
          onChange={(R2) => change({ R2 })}
        />{" "}
        in the end, a{" "}
        {ofStep ? (
          <>
            Δ<i>R</i>²
          </>
        ) : (
          "β"
        )}{" "}
        of{" "}
        <NumberWord
          label="Effect"
          value={power.effect}
          text={planned ? formatShare(planned.effect, ofStep ? 3 : 2) : "…"}
          rule={ofStep ? "ΔR², above 0; empty for .02." : "The size of β; empty for the smallest effect that matters."}
          least={0}
          most={ofStep ? 0.99 : 5}
          onChange={(effect) => change({ effect })}
        />{" "}
        would be found with a power of <b data-testid="power">{planned ? formatPower(planned.power) : "…"}</b>;{" "}
        <SettingWord
          label="Power that is wanted"
          value={String(power.power)}
          text={formatShare(power.power)}
          choices={POWERS.map((value) => ({ value: String(value), label: formatShare(value) }))}
          onChange={(value) => change({ power: Number(value) })}
        />{" "}
        takes{" "}
        <b data-testid="needed">
          {planned ? (planned.needed === null ? "more respondents than there are" : counted(planned.needed, "respondent")) : "…"}
        </b>
        {planned?.from.own === "usual" && (
          <>
            ; predictors correlate <CorrelationWord power={power} change={change} />
          </>
        )}
        {hypothesis.rests.on === "coefficient" && hypothesis.rests.column.length === 2 && (
          <>
            ; the two that it multiplies are measured with reliabilities of{" "}
            <FieldWord
              label="Reliabilities"
              text={power.reliability ? power.reliability.map((value) => formatShare(value)).join(" and ") : planned?.product ? planned.product.reliability.map((value) => formatShare(value)).join(" and ") : "nothing said"} // prettier-ignore
              initial={power.reliability ? power.reliability.join(" ") : ""}
              unset={power.reliability === null}
              rule="Two numbers up to 1, with a space between; empty for α of the scales."
              width={110}
              read={(typed) => readTwo(typed)}
              onChange={change}
            />
          </>
        )}
        .{" "}
        <button type="button" className="link" onClick={() => store.edit({ subject: "power", id: power.id, to: null })}>
          No more
        </button>
      </p>
      <ComputationState of={computed} refusal={null} />
      {found?.status === "refused" && <p role="alert">{POWER_REFUSED[found.why]}</p>}
      {planned && table && (
        <>
          <ChartFrame title={plain(table.title)} note="" table={<PrintedTable table={table} className={css.table} testId="power-table" />}>
            <PowerCurve
              title={`Power of ${code}`}
              curve={planned.curve}
              n={planned.n}
              power={planned.power}
              wanted={power.power}
              needed={planned.needed}
              shrunk={planned.product}
              format={formatPower}
              count={formatCount}
            />
          </ChartFrame>
          <ul className={page.said}>
            {powerSays(planned, power.power, title).map((sentence, k) => (
              <li key={k}>
                <Said>{sentence}</Said>
              </li>
            ))}
          </ul>
          <Samples power={power} found={planned} change={change} />
        </>
      )}
    </section>
  );
}

/** The same by drawing: predictors that are drawn too, skewed residuals, answers that are missing. */
function Samples(props: { power: Power; found: Extract<PowerResult, { status: "planned" }>; change: (to: Partial<Power>) => void }) {
  const { power, change } = props;
  const drawn = useParts("power", power, power.samples !== null);
  const found = drawn.found as SimulatedPower | null;
  const { progress } = drawn;
  const whole = progress !== null && !drawn.computing && progress.of > 0 && progress.done === progress.of;
  if (power.samples === null)
    return (
      <button type="button" className="link" onClick={() => change({ samples: 2000 })}>
        Draw 2 000 samples of these assumptions
      </button>
    );
  return (
    <section aria-label="Drawn samples">
      <p className={css.settings}>
        In {formatCount(power.samples)} samples with{" "}
        <SettingWord
          label="Residuals"
          value={String(power.skew)}
          text={SKEWS[power.skew]}
          choices={Object.entries(SKEWS).map(([value, label]) => ({ value, label }))}
          onChange={(value) => change({ skew: Number(value) as Power["skew"] })}
        />{" "}
        residuals, predictors that correlate <CorrelationWord power={power} change={change} /> and{" "}
        <SettingWord
          label="Missing answers"
          value={String(power.missing)}
          text={
            power.missing === 0 ? "no missing answers" : `${formatPlain(power.missing * 100)} % of the answers to each variable missing`
          }
          choices={MISSING.map((value) => ({
            value: String(value),
            label: value === 0 ? "no missing answers" : `${formatPlain(value * 100)} % missing`,
          }))}
          onChange={(value) => change({ missing: Number(value) })}
        />
        :
      </p>
      <DrawnState
        drawn={drawn}
        noun="samples"
        testId="samples-state"
        stopped="Stopped before all samples were drawn."
        whole={
          <>
            {formatCount(power.samples)} samples drawn, seed {power.seed}.{" "}
            <button type="button" className="link" onClick={() => change({ samples: null })}>
              No more
            </button>
          </>
        }
      />
      {whole && found === null && <p role="alert">These columns say the same as one another: nothing can be drawn.</p>}
      {found && (
        <ul className={page.said} data-testid="samples">
          {samplesSay(found, props.found).map((sentence, k) => (
            <li key={k}>
              <Said>{sentence}</Said>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** How the predictors go together, where that is assumed: of what is reckoned without data, and of what is drawn. */
function CorrelationWord({ power, change }: { power: Power; change: (to: Partial<Power>) => void }) {
  return (
    <NumberWord
      label="Correlation of the predictors"
      value={power.r}
      text={formatShare(power.r)}
      rule="0 to .95."
      least={0}
      most={0.95}
      required
      onChange={(r) => change({ r: r ?? power.r })}
    />
  );
}

/** Two reliabilities that were typed; nothing for α of the scales. */
function readTwo(typed: string): Pick<Power, "reliability"> | null {
  if (typed.trim() === "") return { reliability: null };
  const read = typed.trim().split(/[\s;]+/).map(readNumber); // prettier-ignore
  return read.length === 2 && read.every((value) => value !== null && value >= 0.01 && value <= 1)
    ? { reliability: [read[0]!, read[1]!] }
    : null;
}
