"use client";

import { useSearchParams } from "next/navigation";
import { useMemo, useSyncExternalStore } from "react";
import { ComputationState } from "@/features/study/ComputationState";
import { useSeenStore, useStudy } from "@/features/study/study-context";
import { useAsked, useResults } from "@/features/study/use-computed";
import { useSeen } from "@/features/study/use-seen";
import { QuoteThis } from "@/features/study/QuoteThis";
import { SinceNote } from "@/features/study/SinceNote";
import { tableAsHtml } from "@/files/table-html";
import { codesOf, Hypothesis } from "@/study/model/hypothesis";
import { THEORY, type Theory, theoryOf } from "@/study/model/theory";
import { counted, formatLevel, formatShare } from "@/study/report/format-number";
import { contradictions } from "@/study/report/theory/hypothesis-words";
import { theoryTable } from "@/study/report/theory/theory-table";
import { changesSay, verdictSays } from "@/study/report/theory/verdict-words";
import { Margin, Note } from "@/ui/parts/Margin";
import { SentencesNote } from "@/ui/parts/notes";
import page from "@/ui/parts/page.module.css";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { SettingWord } from "@/ui/parts/SettingWord";
import { HypothesisSettings } from "./HypothesisSettings";
import { changed, moved, newHypothesis, seenBefore } from "@/features/study/hypothesis-edits";
import { HypothesesTable, openHypothesis } from "./HypothesesTable";
import { LadderTheory } from "./LadderTheory";
import { PlanSection } from "./PlanSection";
import { PowerSection } from "./PowerSection";
import css from "./theory.module.css";

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
  const shown = new Set([...stands.values()].flatMap((stand) => (stand.estimate === null ? [] : [stand.id])));
  const codes = codesOf(hypotheses);
  const at = hypotheses.findIndex((h) => h.id === chosen);
  const h = hypotheses[at] ?? null;
  const stand = h ? stands.get(h.id) : undefined;
  const fitOf = (id: string | null) => {
    const found = id === null ? undefined : fits.get(id);
    return found?.status === "fitted" ? found.fit : null;
  };
  const set = (to: Partial<Theory>) => void store.edit({ subject: "theory", id: THEORY, to: { ...theory, ...to } });
  const add = (own: Partial<Hypothesis> = {}) => {
    const ladder = own.ladder ?? h?.ladder ?? study.ladders[0]?.id ?? null;
    const to = Hypothesis.parse({ ...own, ladder, id: "new" });
    const made = newHypothesis(study, to, seenBefore(to, study, looked, shown), new Date().toISOString());
    if (store.edit(...made.edits)) openHypothesis(made.id);
  };
  const change = (of: Hypothesis) => (to: Partial<Hypothesis>) => {
    // of what it said, and of what it will say
    const seen = shown.has(of.id) || [of, { ...of, ...to }].some((one) => seenBefore(one, study, looked, shown));
    void store.edit({ subject: "hypothesis", id: of.id, to: changed(of, to, seen, new Date().toISOString()) });
  };
  const remove = (of: Hypothesis) => {
    const own = study.powers.filter((p) => p.hypothesis === of.id);
    const edits = [
      ...own.map(({ id }) => ({ subject: "power" as const, id, to: null })),
      { subject: "hypothesis" as const, id: of.id, to: null },
    ];
    if (store.edit(...edits)) openHypothesis(null);
  };
  const pictured = study.ladders.filter((l) => hypotheses.some((one) => one.ladder === l.id && one.rests.on !== "open"));
  const opposed = contradictions(hypotheses, study.ladders);
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
              text={`α = ${formatLevel(theory.alpha)}`}
              choices={ALPHAS.map((value) => ({ value: String(value), label: `α = ${formatLevel(value)}` }))}
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
          <LadderTheory key={ladder.id} ladder={ladder} stands={stands} fit={fitOf(ladder.id)} add={add} />
        ))}
        {hypotheses.length > 0 && <HypothesesTable stands={stands} chosen={chosen} outdated={computed.outdated} />}
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
              onClick={() =>
                saveFile(fileName(`${study.name} hypotheses`, "html"), "text/html", tableAsHtml(theoryTable(study, stands, theory, title)))
              }
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
          <SentencesNote heading={codes[at]!} sentences={[...verdictSays(stand, h, theory, title), ...changesSay(h, study.ladders, title)]}>
            <QuoteThis of={{ paragraph: { kind: "hypothesis", id: h.id } }} part={{ stands: new Map([[h.id, stand]]) }} />
          </SentencesNote>
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

/** What has been looked at, by kind and id. */
function useLooked(): readonly string[] {
  const store = useSeenStore();
  const seen = useSyncExternalStore(store.subscribe, store.snapshot, store.snapshot);
  return [...seen.keys()];
}
