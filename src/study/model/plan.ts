import { z } from "zod";
import { filterInputs, namesBehind } from "./dependencies";
import { DerivedVariable } from "./derived";
import { Hypothesis, hypothesisNames, type Tested, TESTED } from "./hypothesis";
import { activeTerms, Ladder, ladderNames } from "./ladder";
import { ObjectId } from "./names";
import { Power } from "./power";
import { RespondentFilter } from "./respondent-filter";
import { Scale } from "./scale";
import { Theory, theoryOf } from "./theory";
import { Variable } from "./variable";

/** Everything of a study that a plan fixes: hypotheses, and what they stand on. */
export const PlanDocument = z.strictObject({
  codebook: z.array(Variable),
  scales: z.array(Scale),
  derived: z.array(DerivedVariable),
  filters: z.array(RespondentFilter),
  ladders: z.array(Ladder),
  hypotheses: z.array(Hypothesis),
  powers: z.array(Power),
  theory: Theory,
});
export type PlanDocument = z.infer<typeof PlanDocument>;

/** A plan as it was fixed: never changed afterwards, and its sum shows it. */
export const Plan = z.strictObject({
  id: ObjectId,
  at: z.iso.datetime(),
  /** Rows of answers there were: 0 for a plan before the data. */
  rows: z.int().min(0),
  /** SHA-256 of `planText`, in hexadecimal. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  document: PlanDocument,
});
export type Plan = z.infer<typeof Plan>;

/** The parts of a study that a plan can be of. */
export type Plannable = { readonly [K in keyof Omit<PlanDocument, "theory">]: readonly PlanDocument[K][number][] } & {
  readonly theories: readonly Theory[];
};

/** What a plan of a study as it stands would fix: its ladders and hypotheses, and the scales, filters and variables behind them. */
export function plannedOf(study: Plannable): PlanDocument {
  const filters = study.filters.filter((f) => f.everywhere || study.ladders.some((l) => l.respondents === f.id) || study.hypotheses.some(({ rests }) => rests.on === "correlation" && rests.respondents === f.id)); // prettier-ignore
  const names = [...study.ladders.flatMap(ladderNames), ...study.hypotheses.flatMap(hypothesisNames), ...filters.flatMap(filterInputs)];
  const behind = namesBehind(study, [...names, ...study.scales.map((s) => s.id)]);
  return PlanDocument.parse({
    codebook: study.codebook.filter((v) => behind.has(v.name)),
    scales: study.scales,
    derived: study.derived.filter((d) => behind.has(d.name)),
    filters,
    ladders: study.ladders,
    hypotheses: study.hypotheses,
    powers: study.powers,
    theory: theoryOf(study.theories),
  });
}

/** What a plan's sum is of: day and document as JSON with its fields in alphabetical order. */
export function planText({ at, rows, document }: Pick<Plan, "at" | "rows" | "document">): string {
  return JSON.stringify({ at, document, rows }, (_, value: unknown) =>
    value !== null && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
}

/** What a deviation is about, in the order in which they are told. */
export const ABOUT = ["sample", "coding", "items", "terms", "errors", "hypotheses", "level"] as const;

/** Something that is not as it was planned. Null: it was not there, or is not any more. */
export interface Deviation {
  about: (typeof ABOUT)[number];
  kind: "filter" | "variable" | "derived" | "scale" | "ladder" | "hypothesis" | "theory";
  id: string;
  /** What of it; "" for all of it. */
  field: string;
  planned: unknown;
  done: unknown;
}

/** Everything that was done otherwise than planned, drawn from the two documents alone. */
export function deviations(planned: PlanDocument, done: PlanDocument): Deviation[] {
  const found: Deviation[] = [];
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const compare = <T>(
    about: Deviation["about"],
    kind: Deviation["kind"],
    before: readonly T[],
    after: readonly T[],
    idOf: (one: T) => string,
    fields: (one: T) => Record<string, unknown>,
    abouts: Partial<Record<string, Deviation["about"]>> = {},
  ) => {
    // prettier-ignore
    const now = new Map(after.map((one) => [idOf(one), one]));
    const then = new Map(before.map((one) => [idOf(one), one]));
    for (const [id, one] of then) {
      const other = now.get(id);
      if (other === undefined) found.push({ about, kind, id, field: "", planned: one, done: null });
      else {
        const [a, b] = [fields(one), fields(other)];
        for (const field of new Set([...Object.keys(a), ...Object.keys(b)])) {
          if (!same(a[field] ?? null, b[field] ?? null)) found.push({ about: abouts[field] ?? about, kind, id, field, planned: a[field] ?? null, done: b[field] ?? null }); // prettier-ignore
        }
      }
    }
    for (const [id, one] of now) if (!then.has(id)) found.push({ about, kind, id, field: "", planned: null, done: one });
  };
  compare("sample", "filter", planned.filters, done.filters, (f) => f.id, ({ conditions, everywhere }) => ({ conditions, everywhere })); // prettier-ignore
  // what was not planned stands on further variables: only those of the plan are compared
  const codebook = done.codebook.filter((v) => planned.codebook.some(({ name }) => name === v.name));
  compare("coding", "variable", planned.codebook, codebook, (v) => v.name, ({ kind, range, missing, levels }) => ({ kind, range, missing: [...missing].sort(), levels: levels.map((l) => l.value) })); // prettier-ignore
  compare("coding", "derived", planned.derived, done.derived.filter((d) => planned.derived.some(({ name }) => name === d.name)), (d) => d.name, ({ recipe }) => ({ recipe })); // prettier-ignore
  compare("items", "scale", planned.scales, done.scales, (s) => s.id, ({ items, rule, answeredShare, weigh, factor }) => ({ items: items.map(({ variable, reversed }) => ({ variable, reversed })), rule, answeredShare, weigh, ...(rule === "weighted" && { weights: items.map((i) => i.weight) }), ...((rule === "regression" || rule === "bartlett") && { factor }) })); // prettier-ignore
  compare("terms", "ladder", planned.ladders, done.ladders, (l) => l.id, ladderFields, {
    sample: "sample",
    alsoComplete: "sample",
    errors: "errors",
    cluster: "errors",
    intervals: "errors",
    confidence: "errors",
  });
  compare("hypotheses", "hypothesis", planned.hypotheses, done.hypotheses, (h) => h.id, (h) => ({ tested: Object.fromEntries(TESTED.map((key) => [key, h[key]])) as Tested, family: h.family })); // prettier-ignore
  compare(
    "level",
    "theory",
    [planned.theory],
    [done.theory],
    (t) => t.id,
    ({ alpha, holm, delta }) => ({ alpha, holm, delta }),
  );
  return found.sort((a, b) => ABOUT.indexOf(a.about) - ABOUT.indexOf(b.about));
}

function ladderFields(l: Ladder): Record<string, unknown> {
  const steps = l.steps.map((step, k) => [`step ${k + 1}`, activeTerms(step).map(({ components }) => components)] as const);
  return {
    outcome: l.outcome,
    ...Object.fromEntries(steps),
    centring: l.centring,
    categories: l.categories,
    standardizeIndicators: l.standardizeIndicators,
    search: l.exploratory === "" ? null : l.exploratory,
    sample: { filter: l.filter, respondents: l.respondents },
    alsoComplete: l.alsoComplete,
    errors: l.errors,
    cluster: l.cluster,
    intervals: l.intervals,
    confidence: l.confidence,
  };
}
