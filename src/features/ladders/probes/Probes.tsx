"use client";

import type { LadderFit } from "@/core/regression/ladder";
import { columnKey } from "@/core/regression/terms";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import { activeTerms, type Ladder } from "@/study/model/ladder";
import { Groups } from "@/study/model/groups";
import { Importance } from "@/study/model/importance";
import { Residuals } from "@/study/model/residuals";
import { Search } from "@/study/model/search";
import { Shift } from "@/study/model/shift";
import { Means } from "@/study/model/means";
import type { Probe } from "@/study/model/probe";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { listed } from "@/study/report/format-number";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { asked, type Offer, probeOffers } from "./probe-offers";
import { GroupsSheet } from "./GroupsSheet";
import { ImportanceSheet } from "./ImportanceSheet";
import { MeansSheet } from "./MeansSheet";
import { searchCandidates } from "./searched-ladder";
import { SearchSheet } from "./SearchSheet";
import { ShiftSheet } from "./ShiftSheet";
import { ResidualsSheet } from "./ResidualsSheet";
import { ProbeSheet } from "./ProbeSheet";
import css from "./probes.module.css";

/** What can be asked of the selected step, and what has been: each with its answer, in order. */
export function Probes({ ladder, step, fit }: { ladder: Ladder; step: number; fit: LadderFit }) {
  const { study, store, title } = useStudy();
  const own = study.probes.filter((p) => p.ladder === ladder.id);
  const means = study.means.filter((m) => m.ladder === ladder.id);
  const isCategory = (name: string) => study.codebook.some((v) => v.name === name && v.kind === "category");
  const stepOf = (p: Probe) => Math.min(p.step ?? ladder.steps.length, ladder.steps.length);
  const open = probeOffers(ladder, step, isCategory).filter(
    (offer) => !own.some((p) => stepOf(p) === step + 1 && asked(p) === asked(offer)),
  );
  const ask = (offer: Offer) => {
    const id = newId(`${offer.focal} by ${offer.moderators.map((m) => m.variable).join(" ")}`, study.probes.map((p) => p.id)); // prettier-ignore
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    store.edit({ subject: "probe", id, to: { id, ladder: ladder.id, step: at, metric: "raw", ...offer } });
  };
  const categories = [
    ...new Set(
      ladder.steps
        .slice(0, step + 1)
        .flatMap(activeTerms)
        .flatMap((t) => t.components),
    ),
  ].filter((name) => isCategory(name) && !means.some((m) => m.variable === name));
  const predict = (variable: string) => {
    const id = newId(`means of ${variable}`, study.means.map((m) => m.id)); // prettier-ignore
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    store.edit({ subject: "means", id, to: Means.parse({ id, ladder: ladder.id, step: at, variable }) });
  };
  const grouped = study.groups.filter((g) => g.ladder === ladder.id);
  const makers = study.codebook.filter((v) => v.kind === "category" && v.name !== ladder.outcome).map((v) => v.name);
  const unasked = makers.filter((name) => !grouped.some((g) => g.variable === name && (g.step ?? ladder.steps.length) === step + 1));
  const tell = (variable: string) => {
    const id = newId(`groups by ${variable}`, study.groups.map((g) => g.id)); // prettier-ignore
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    store.edit({ subject: "groups", id, to: Groups.parse({ id, ladder: ladder.id, step: at, variable }) });
  };
  const shared = study.importances.filter((i) => i.ladder === ladder.id);
  const stepOfShared = (of: (typeof shared)[number]) => Math.min(of.step ?? ladder.steps.length, ladder.steps.length);
  const active = ladder.steps.slice(0, step + 1).flatMap(activeTerms).length; // prettier-ignore
  const shareable = active > 1 && !shared.some((one) => stepOfShared(one) === step + 1);
  const share = () => {
    const id = newId("importance", study.importances.map((i) => i.id)); // prettier-ignore
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    store.edit({ subject: "importance", id, to: Importance.parse({ id, ladder: ladder.id, step: at }) });
  };
  const searches = study.searches.filter((one) => one.ladder === ladder.id);
  const possible = searchCandidates(study, ladder, step + 1);
  const searchable = possible.length > 1 && ladder.outcome !== null && !searches.some((one) => one.controls === step + 1);
  const look = () => {
    const id = newId("search", study.searches.map((one) => one.id)); // prettier-ignore
    store.edit({ subject: "search", id, to: Search.parse({ id, ladder: ladder.id, controls: step + 1, candidates: possible }) });
  };
  const looked = study.residuals.filter((one) => one.ladder === ladder.id);
  const checkable = active > 0 && !looked.some((one) => Math.min(one.step ?? ladder.steps.length, ladder.steps.length) === step + 1);
  const check = () => {
    const id = newId("residuals", study.residuals.map((one) => one.id)); // prettier-ignore
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    store.edit({ subject: "residuals", id, to: Residuals.parse({ id, ladder: ladder.id, step: at }) });
  };
  const shifts = study.shifts.filter((one) => one.ladder === ladder.id);
  const moved = movedColumns(fit, step).filter((key) => !shifts.some((one) => columnKey(one.column) === key && (one.step ?? ladder.steps.length) === step + 1)); // prettier-ignore
  const explain = (key: string) => {
    const id = newId(`change of ${key}`, study.shifts.map((one) => one.id)); // prettier-ignore
    const at = step + 1 === ladder.steps.length ? null : step + 1;
    store.edit({ subject: "shift", id, to: Shift.parse({ id, ladder: ladder.id, step: at, column: fit.parts.get(key) }) });
  };
  const told =
    looked.length + shifts.length + Number(checkable) + own.length + means.length + grouped.length + shared.length + searches.length;
  const offered = open.length + categories.length + makers.length + Number(shareable) + Number(searchable) + moved.length;
  if (told + offered === 0) return null;
  return (
    <section aria-label="Probes" className={css.probes}>
      {own.map((probe) => (
        <ProbeSheet key={probe.id} probe={probe} ladder={ladder} />
      ))}
      {means.map((one) => (
        <MeansSheet key={one.id} means={one} ladder={ladder} />
      ))}
      {grouped.map((one) => (
        <GroupsSheet key={one.id} groups={one} ladder={ladder} variables={makers} />
      ))}
      {looked.map((one) => (
        <ResidualsSheet key={one.id} residuals={one} ladder={ladder} />
      ))}
      {shared.map((one) => (
        <ImportanceSheet key={one.id} importance={one} ladder={ladder} />
      ))}
      {shifts.map((one) => (
        <ShiftSheet key={one.id} shift={one} ladder={ladder} fit={fit} />
      ))}
      {searches.map((one) => (
        <SearchSheet key={one.id} search={one} ladder={ladder} />
      ))}
      {open.length + categories.length + unasked.length + Number(shareable) + Number(searchable) + Number(checkable) + moved.length > 0 && (
        <div className={css.offers}>
          <h2 className={page.heading}>To ask of step {step + 1}</h2>
          <ul>
            {open.map((offer) => (
              <li key={asked(offer)}>
                <button type="button" className="link" onClick={() => ask(offer)}>
                  {question(offer, title, isCategory(offer.focal))}
                </button>
              </li>
            ))}
            {categories.map((name) => (
              <li key={name}>
                <button type="button" className="link" onClick={() => predict(name)}>
                  What is predicted for each level of {title(name)}?
                </button>
              </li>
            ))}
            {moved.map((key) => (
              <li key={key}>
                <button type="button" className="link" onClick={() => explain(key)}>
                  Why did {partsTitle(fit.parts.get(key)!, title)} change from step {step}?
                </button>
              </li>
            ))}
            {checkable && (
              <li>
                <button type="button" className="link" onClick={check}>
                  Can the residuals be trusted?
                </button>
              </li>
            )}
            {shareable && (
              <li>
                <button type="button" className="link" onClick={share}>
                  How much does each term explain?
                </button>
              </li>
            )}
            {searchable && (
              <li>
                <button type="button" className="link" onClick={look}>
                  Which further predictors would a search choose?
                </button>
              </li>
            )}
            {unasked.length > 0 && (
              <li>
                Does it hold alike in every group of{" "}
                <SettingWord
                  label="Variable that makes the groups"
                  value={null}
                  text="a variable"
                  choices={unasked.map((name) => ({ value: name, label: title(name) }))}
                  onChange={tell}
                />
                ?
              </li>
            )}
          </ul>
        </div>
      )}
    </section>
  );
}

/** Coefficients that move by more than their standard error when a step enters, the furthest first. @param step from 0 */
function movedColumns(fit: LadderFit, step: number): string[] {
  const [before, after] = [fit.steps[step - 1], fit.steps[step]];
  const moves = (before?.coefficients ?? []).flatMap(({ column, b }) => {
    const now = after?.coefficients.find((c) => c.column === column);
    return now && b.se ? [{ column, by: Math.abs(b.estimate - now.b.estimate) / b.se }] : [];
  });
  return moves.filter(({ by }) => by > 1).sort((a, b) => b.by - a.by).map(({ column }) => column); // prettier-ignore
}

function question({ focal, moderators }: Offer, title: (name: string) => string, category: boolean): string {
  const names = moderators.map((m) => m.variable);
  if (names.length === 1 && names[0] === focal) return `Where does the slope of ${title(focal)} bend?`;
  return `How does ${category ? "the difference by" : "the slope of"} ${title(focal)} change with ${listed(names.map((name) => title(name)))}?`;
}
