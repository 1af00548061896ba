import type { Edit } from "@/study/model/edit";
import { Hypothesis } from "@/study/model/hypothesis";
import type { Ladder } from "@/study/model/ladder";
import { Ladder as LadderSchema } from "@/study/model/ladder";
import { Scale } from "@/study/model/scale";
import { THEORY, Theory } from "@/study/model/theory";
import { Variable } from "@/study/model/variable";
import { PLANTED, SCALES } from "./true-parameters";

/** Under this name it stands in the list. */
export const DEMO_NAME = "Canal Street evening classes";

/** What the researchers of the demo decided about their data: codebook, scales, ladders and hypotheses, as edits through the door. */
export function canalStreetEdits(): Edit[] {
  return [{ subject: "name", to: DEMO_NAME }, ...codebook(), ...scales(), ...ladders(), ...hypotheses()];
}

function codebook(): Edit[] {
  const level = (value: string) => ({ value, label: "" });
  const rows = [
    Variable.parse({ name: "learner", label: "Learner", kind: "code" }),
    Variable.parse({ name: "class", label: "Class", kind: "code" }),
    Variable.parse({
      name: "format",
      label: "Class format",
      kind: "category",
      levels: ["in person", "online", "blended", PLANTED.unusedLevel].map(level),
    }),
    Variable.parse({ name: "returning", label: "Returning learner", kind: "category", levels: ["no", "yes"].map(level) }),
    Variable.parse({
      name: "language_family",
      label: "Home language family",
      kind: "category",
      levels: ["Romance", "Slavic", "Turkic", "Semitic", "Indo-Iranian", "Sino-Tibetan"].map(level),
    }),
    Variable.parse({ name: "age", label: "Age", kind: "number", unit: "years", range: { low: 18, high: 90 } }),
    Variable.parse({ name: "months_enrolled", label: "Months enrolled", kind: "number", unit: "months", missing: ["99"] }),
    Variable.parse({ name: "practice_hours", label: "Weekly practice hours", kind: "number", unit: "hours", missing: ["99"] }),
    ...SCALES.flatMap((scale) =>
      scale.items.map(([label], i) =>
        Variable.parse({
          name: `${scale.prefix}${i + 1}`,
          label,
          kind: "item",
          range: { low: scale.low, high: scale.high },
          missing: ["-9"],
        }),
      ),
    ),
    Variable.parse({ name: "correcting", label: "Correcting others", kind: "number", range: { low: 1, high: 7 } }),
    Variable.parse({ name: "oral_exam", label: "Oral exam", kind: "number", range: { low: 0, high: 100 } }),
  ];
  return rows.map((to) => ({ subject: "variable", id: to.name, to }));
}

function scales(): Edit[] {
  return SCALES.map((scale) => ({
    subject: "scale",
    id: scale.id,
    to: Scale.parse({
      id: scale.id,
      name: scale.name,
      items: scale.items.map(([, reversed], i) => {
        const variable = `${scale.prefix}${i + 1}`;
        return { variable, reversed: reversed && variable !== PLANTED.wronglyKeyed };
      }),
    }),
  }));
}

function ladders(): Edit[] {
  const step = (id: string, name: string, ...terms: string[]) => ({ id, name, terms: terms.map((t) => ({ components: t.split("*") })) });
  const core = [
    step("background", "Background", "age", "months_enrolled"),
    step("core", "Core", "speaking_confidence", "tutor_support"),
    step("moderation", "Moderation", "speaking_confidence*tutor_support"),
  ];
  const list: Ladder[] = [
    LadderSchema.parse({ id: "willingness", name: "Willingness to speak", outcome: "willingness_to_speak", steps: core }),
    LadderSchema.parse({ id: "exam", name: "Oral exam", outcome: "oral_exam", steps: core }),
    LadderSchema.parse({
      id: "correcting",
      name: "Does correcting others add?",
      outcome: "willingness_to_speak",
      steps: [step("confidence", "Confidence", "speaking_confidence"), step("correcting", "Correcting", "correcting")],
    }),
  ];
  return list.map((to) => ({ subject: "ladder", id: to.id, to }));
}

/** Four that were written before the answers came, and one that somebody thought of afterwards. */
function hypotheses(): Edit[] {
  const on = (...names: string[]) => ({ rests: { on: "coefficient", column: names.map((variable) => ({ variable })) } });
  const before = { ladder: "willingness", before: true, since: "2026-03-12T09:00:00.000Z" };
  const list = [
    { ...before, ...on("speaking_confidence"), step: 2, direction: "+" },
    { ...before, rests: { on: "change" }, step: 2 },
    { ...before, ...on("speaking_confidence", "tutor_support"), direction: "+" },
    { ...before, ...on("age"), claim: "equivalence" },
    { ladder: "correcting", ...on("correcting"), direction: "+", since: "2026-05-04T16:30:00.000Z" },
  ].map((own, k) => Hypothesis.parse({ id: `h${k + 1}`, ...own }));
  const theory = Theory.parse({ id: THEORY, holm: true, delta: 0.1 });
  return [{ subject: "theory", id: THEORY, to: theory }, ...list.map((to): Edit => ({ subject: "hypothesis", id: to.id, to }))];
}
