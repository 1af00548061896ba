"use client";

import Link from "next/link";
import { useSearchParams } from "next/navigation";
import { useMemo, useState, useSyncExternalStore } from "react";
import { ComputationState } from "@/features/study/ComputationState";
import { useSeenStore, useStudy } from "@/features/study/study-context";
import { useAsked, useResults } from "@/features/study/use-computed";
import { useSeen } from "@/features/study/use-seen";
import { SinceNote } from "@/features/study/SinceNote";
import { tableAsHtml } from "@/files/table-html";
import { codesOf, type Hypothesis } from "@/study/model/hypothesis";
import { THEORY, type Theory, theoryOf } from "@/study/model/theory";
import { counted, formatShare } from "@/study/report/format-number";
import { contradictions, hypothesisSentence, restsWords } from "@/study/report/theory/hypothesis-words";
import { theoryTable } from "@/study/report/theory/theory-table";
import { changesSay, evidenceWords, verdictSays } from "@/study/report/theory/verdict-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { type Begun, TheoryLoom } from "@/ui/charts/TheoryLoom";
import { Margin, Note } from "@/ui/parts/Margin";
import { SentencesNote } from "@/ui/parts/notes";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { Said } from "@/ui/parts/Said";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { SettingWord } from "@/ui/parts/SettingWord";
import { HypothesisSettings } from "./HypothesisSettings";
import { changed, moved, newHypothesis, testableColumns } from "@/features/study/hypothesis-edits";
import type { Ladder } from "@/study/model/ladder";
import type { LadderFit } from "@/core/regression/ladder";
import type { PrintTable } from "@/study/report/print-table";
import type { Stand } from "@/study/analyse/analyse-theory";
import { BegunWith } from "./BegunWith";
import { PlanSection } from "./PlanSection";
import { PowerSection } from "./PowerSection";
import css from "./theory.module.css";
import { theoryPicture } from "./theory-picture";

const ALPHAS = [0.1, 0.05, 0.01, 0.005, 0.001];
const DELTAS = [0, 0.05, 0.1, 0.15, 0.2, 0.3];

/** The hypotheses of a study with their verdicts, and the theory as a picture of them. */
export function TheoryScreen() {
  const { study, store, title } = useStudy();
  const chosen = useSearchParams().get("hypothesis");
  const theory = theoryOf(study.theories);
  const { hypotheses } = study;
  const computed = useAsked("theory", theory, { enabled: hypotheses.length > 0 });
  const before = useSeen("theory", theory, computed);
  const looked = useLooked();
  const fits = useResults("ladder", study.ladders, null);
  const stands = useMemo(() => new Map((computed.result?.stands ?? []).map((stand) => [stand.id, stand])), [computed.result]);
  const codes = codesOf(hypotheses);
  const at = hypotheses.findIndex((h) => h.id === chosen);
  const h = hypotheses[at] ?? null;
  const stand = h ? stands.get(h.id) : undefined;
  const fitOf = (id: string | null) => {
    const found = id === null ? undefined : fits.get(id);
    return found?.status === "fitted" ? found.fit : null;
  };
  const open = (id: string | null) => window.history.pushState(null, "", id === null ? "?" : `?hypothesis=${id}`);
  const set = (to: Partial<Theory>) => void store.edit({ subject: "theory", id: THEORY, to: { ...theory, ...to } });
  const add = (own: Partial<Hypothesis> = {}) => {
    const ladder = own.ladder ?? h?.ladder ?? study.ladders[0]?.id ?? null;
    const made = newHypothesis(study, { ladder, ...own }, ladder !== null && looked(ladder), new Date().toISOString());
    if (store.edit(...made.edits)) open(made.id);
  };
  const change = (of: Hypothesis) => (to: Partial<Hypothesis>) => {
    // a verdict on this page has shown the result as well
    const shown = stands.get(of.id)?.estimate ?? null;
    const seen = shown !== null || (of.rests.on !== "correlation" && of.ladder !== null && looked(of.ladder));
    void store.edit({ subject: "hypothesis", id: of.id, to: changed(of, to, seen, new Date().toISOString()) });
  };
  const remove = (of: Hypothesis) => {
    const own = study.powers.filter((p) => p.hypothesis === of.id);
    const edits = [
      ...own.map(({ id }) => ({ subject: "power" as const, id, to: null })),
      { subject: "hypothesis" as const, id: of.id, to: null },
    ];
    if (store.edit(...edits)) open(null);
  };
  const pictured = study.ladders.filter((l) => hypotheses.some((one) => one.ladder === l.id && one.rests.on !== "open"));
  const opposed = contradictions(hypotheses, study.ladders);
  const table = theoryTable(study, stands, theory, title);
  const outcomes = [...new Set(pictured.flatMap((l) => (l.outcome === null ? [] : [title(l.outcome)])))];
  return (
    <div className={page.page}>
      <main className={page.sheet} aria-busy={computed.outdated}>
        {hypotheses.length === 0 ? (
          <>
            <h1 className={page.sentence}>What should predict what, in which direction, and for whom?</h1>
            <p className="quiet">
              A hypothesis is a sentence tied to the number that tests it; from then on it tells by itself how it stands. Written before its
              result is looked at, its direction counts.{" "}
              <button type="button" className="link" onClick={() => add()}>
                Write the first
              </button>
            </p>
          </>
        ) : (
          <h1 className={page.sentence}>
            {counted(hypotheses.length, "hypothesis", "hypotheses")}
            {outcomes.length > 0 && ` about ${outcomes.join(" and ")}`}, tested at{" "}
            <SettingWord
              label="Level"
              value={String(theory.alpha)}
              text={`α = ${formatShare(theory.alpha, theory.alpha < 0.01 ? 3 : 2)}`}
              choices={ALPHAS.map((value) => ({ value: String(value), label: `α = ${formatShare(value, value < 0.01 ? 3 : 2)}` }))}
              onChange={(value) => set({ alpha: Number(value) })}
            />
            ,{" "}
            <SettingWord
              label="Correction"
              value={theory.holm ? "holm" : "none"}
              text={theory.holm ? "Holm over the family" : "each by itself"}
              choices={[
                { value: "none", label: "each by itself" },
                { value: "holm", label: "Holm over the family" },
              ]}
              onChange={(value) => set({ holm: value === "holm" })}
            />
            ;{" "}
            <SettingWord
              label="Smallest effect"
              value={String(theory.delta)}
              text={theory.delta === 0 ? "any size would matter" : `below |β| = ${formatShare(theory.delta)} nothing would matter`}
              choices={DELTAS.map((value) => ({
                value: String(value),
                label: value === 0 ? "any size would matter" : `below |β| = ${formatShare(value)} nothing would matter`,
              }))}
              onChange={(value) => set({ delta: Number(value) })}
            />
            .
          </h1>
        )}
        <ComputationState of={computed} refusal={null} />
        {pictured.map((ladder) => (
          <LadderTheory key={ladder.id} ladder={ladder} stands={stands} table={table} fit={fitOf(ladder.id)} add={add} />
        ))}
        {hypotheses.length > 0 && (
          <table className={css.table} data-testid="hypotheses">
            <caption className="visually-hidden">Hypotheses and how they stand</caption>
            <thead>
              <tr>
                <th scope="col">
                  <span className="visually-hidden">code</span>
                </th>
                <th scope="col">Hypothesis</th>
                <th scope="col">rests on</th>
                <th scope="col">evidence</th>
                <th scope="col">verdict</th>
              </tr>
            </thead>
            <tbody className={computed.outdated ? page.outdated : undefined}>
              {hypotheses.map((one, k) => {
                const own = stands.get(one.id);
                return (
                  <tr key={one.id} className={one.id === chosen ? css.chosen : undefined}>
                    <th scope="row">
                      <button
                        type="button"
                        className="link"
                        aria-expanded={one.id === chosen}
                        onClick={() => open(one.id === chosen ? null : one.id)}
                      >
                        {codes[k]}
                      </button>
                    </th>
                    <td>{hypothesisSentence(one, study.ladders, title)}</td>
                    <td>
                      <RestsLink of={one} />
                    </td>
                    <td className={own?.exploratory ? css.dotted : undefined}>{own && <Said>{evidenceWords(own, one)}</Said>}</td>
                    <td className={css.verdict} data-testid={`verdict ${codes[k]}`}>
                      {own?.verdict ?? "…"}
                      {own?.exploratory && ", exploratory"}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
        {h && (
          <section className={css.open} aria-label={`Settings of ${codes[at]}`}>
            <HypothesisSettings hypothesis={h} code={codes[at]!} fit={fitOf(h.ladder)} first={at === 0} onChange={change(h)} />
            <p className={css.ways}>
              <button type="button" className="link" disabled={at === 0} onClick={() => store.edit(...moved(hypotheses, at, -1))}>
                Move up
              </button>
              <button
                type="button"
                className="link"
                disabled={at === hypotheses.length - 1}
                onClick={() => store.edit(...moved(hypotheses, at, 1))}
              >
                Move down
              </button>
              <button type="button" className="link" onClick={() => remove(h)}>
                Remove
              </button>
            </p>
            <PowerSection hypothesis={h} code={codes[at]!} />
          </section>
        )}
        {hypotheses.length > 0 && (
          <p className={css.ways}>
            <button type="button" className="link" onClick={() => add()}>
              + A hypothesis
            </button>
            <button
              type="button"
              className="link"
              onClick={() => saveFile(fileName(`${study.name} hypotheses`, "html"), "text/html", tableAsHtml(table))}
            >
              Save the table as HTML
            </button>
          </p>
        )}
        {hypotheses.length > 0 && <PlanSection />}
      </main>
      <Margin>
        <SinceNote before={before} />
        {h && stand && (
          <SentencesNote
            heading={codes[at]!}
            sentences={[...verdictSays(stand, h, theory, title), ...changesSay(h, study.ladders, title)]}
          />
        )}
        {opposed.length > 0 && <SentencesNote heading="Contradictions" sentences={opposed} />}
        <Note heading="How a verdict comes about">
          <p>
            By the ladder’s own errors; the interval is two-sided. A test is one-sided only where the direction stood before the result was
            first looked at.
          </p>
          <p>
            Not supported is not evidence for no effect: say below which size nothing would matter, and a narrow interval says{" "}
            <i>practically nothing</i>.
          </p>
        </Note>
        <Note heading="Of the picture">
          <p>
            A thread runs from each predictor, in the order of the steps, to the edge that is the outcome. Its stroke is the verdict, its
            end the direction that was stated. A moderator reaches from its thread to the one it acts on; the wedge opens where it
            strengthens. A bracket is a step that adds; a tie sets one coefficient against another. Choose a thread, two, or a bracket to
            begin a hypothesis with it.
          </p>
        </Note>
      </Margin>
    </div>
  );
}

/** What is claimed in one ladder as a picture, and what a further hypothesis can begin with. */
function LadderTheory(props: {
  ladder: Ladder;
  stands: ReadonlyMap<string, Stand>;
  table: PrintTable;
  fit: LadderFit | null;
  add: (own: Partial<Hypothesis>) => void;
}) {
  const { ladder, add } = props;
  const { study, title } = useStudy();
  const [threads, setThreads] = useState<readonly string[]>([]);
  const name = `Theory of ${ladder.outcome === null ? ladder.name : title(ladder.outcome)}, ${ladder.name}`;
  const picture = theoryPicture(ladder, study.hypotheses, props.stands, title);
  const last = ladder.steps.length;
  const columns = testableColumns(ladder, last, props.fit);
  const begin = (what: Begun) => {
    if ("step" in what) add({ ladder: ladder.id, step: what.step + 1 === last ? null : what.step + 1, rests: { on: "change" } });
    else setThreads((held) => (held.includes(what.thread) ? held.filter((one) => one !== what.thread) : [...held.slice(-1), what.thread]));
  };
  return (
    <>
      <ChartFrame
        title={name}
        note=""
        table={<PrintedTable table={props.table} className={css.table} testId="theory-table" />}
        saved={<TheoryLoom title={name} picture={picture} />}
      >
        <TheoryLoom title={name} picture={picture} begin={begin} />
      </ChartFrame>
      <BegunWith
        threads={threads}
        columns={columns}
        title={title}
        onTake={(rests) => {
          setThreads([]);
          add({ ladder: ladder.id, rests });
        }}
        onCancel={() => setThreads([])}
      />
    </>
  );
}

/** What a hypothesis rests on, and the way there. */
function RestsLink({ of }: { of: Hypothesis }) {
  const { study, store, title } = useStudy();
  const said = <Said>{restsWords(of, study.ladders, title)}</Said>;
  if (of.rests.on === "correlation") return <Link className="link" href={`/studies/${store.id}/first-look`}>{said}</Link>; // prettier-ignore
  if (of.ladder === null || of.rests.on === "open") return said;
  const id = study.ladders.find((l) => l.id === of.ladder)?.steps[(of.step ?? 0) - 1]?.id;
  const step = id === undefined ? "" : `&step=${id}`;
  return (
    <Link className="link" href={`/studies/${store.id}/ladders?ladder=${of.ladder}${step}`}>
      {said}
    </Link>
  );
}

/** Whether the numbers of a ladder have been looked at. */
function useLooked(): (ladder: string) => boolean {
  const store = useSeenStore();
  const seen = useSyncExternalStore(store.subscribe, store.snapshot, store.snapshot);
  return (ladder) => seen.has(`ladder ${ladder}`);
}
