import type { LadderModels } from "../regression/ladder";
import type { EngineKind } from "./engine/choose-engine";
import type { Part } from "./engine/problem";
import { LadderOnTape } from "./figures/ladder-on-tape";
import { whitenedRows } from "./figures/whitened-rows";
import { type Resampling, resamplingOf } from "./resampler";
import { TapeWriter, type Value } from "./tape/tape";
import { type Drawing, unitsOf } from "./units";

/** A number of a comparison of groups: a coefficient of one of them, or that of one group minus that of another. Groups are counted from 0. */
export type GroupFigure =
  | { readonly kind: GroupMetric; readonly group: number; readonly column: string }
  | { readonly kind: "difference"; readonly of: GroupMetric; readonly column: string; readonly first: number; readonly second: number };

/** b, β by the means and SDs of all groups together, and β by those of the group itself. */
export type GroupMetric = "b" | "beta" | "betaOwn";
const METRICS = ["b", "beta", "betaOwn"] as const;

/** The step of a ladder in every group, and every difference between two groups, in some metrics. */
export function groupFigures(groups: readonly LadderModels[], step: number, kinds: readonly GroupMetric[] = METRICS): GroupFigure[] {
  const columns = groups[0]!.fits[step]!.columns;
  const own = groups.flatMap((_, group) => columns.flatMap((column) => kinds.map((kind): GroupFigure => ({ kind, group, column }))));
  const pairs = groups.flatMap((_, first) => groups.slice(first + 1).map((__, i) => ({ first, second: first + 1 + i })));
  return [...own, ...columns.flatMap((column) => pairs.flatMap((pair) => kinds.map((of): GroupFigure => ({ kind: "difference", of, column, ...pair }))))]; // prettier-ignore
}

/**
 * One step of a ladder fitted in each group, made ready to be resampled within groups. Means and SDs of all groups together, formed anew in each resample,
 * serve for centring and for β in every group (docs/methods.md, “Bootstrap intervals”).
 * @param groups the same ladder on the cases of each group, with the same columns
 * @param drawings what is drawn in each group; cases when left out
 * @throws NotClosedError when a product stands without its parts
 */
export function groupBootstrap(
  groups: readonly LadderModels[],
  step: number,
  figures: readonly GroupFigure[] = groupFigures(groups, step),
  kind: EngineKind = null,
  drawings: readonly Drawing[] = groups.map(() => ({ by: "cases" })),
): Resampling & { readonly units: number } {
  const t = new TapeWriter();
  const parts: Part[] = [];
  const ladders = groups.map((models, g) => {
    // a step beyond the one that is asked for would cost a column each
    const upTo = { ...models, fits: models.fits.slice(0, step + 1) };
    const rows = whitenedRows(upTo, unitsOf(drawings[g]!, models.y.length));
    if (!rows) throw new RangeError("a group in which nothing is left to explain cannot be resampled");
    const ladder = new LadderOnTape(t, upTo, rows, parts.reduce((sum, part) => sum + part.size, 0)); // prettier-ignore
    parts.push(rows.part);
    return ladder;
  });
  const together = new Together(t, groups, ladders, step);
  for (const figure of figures) {
    t.output(
      figure.kind === "difference"
        ? t.subtract(together.value(figure.of, figure.first, figure.column), together.value(figure.of, figure.second, figure.column))
        : together.value(figure.kind, figure.group, figure.column),
    );
  }
  const units = parts.reduce((sum, { strata }) => strata.reduce((own, size) => own + size, sum), 0);
  return { ...resamplingOf({ parts, tape: t.tape() }, kind), units };
}

/** Means and SDs of a resample of all groups together, and coefficients that are centred and divided by them. */
class Together {
  private readonly moments = new Map<string, { mean: Value; sd: Value }>();
  private readonly sdY: Value;

  constructor(
    private readonly t: TapeWriter,
    private readonly groups: readonly LadderModels[],
    private readonly ladders: readonly LadderOnTape[],
    private readonly step: number,
  ) {
    for (const name of ladders[0]!.components(step)) {
      this.moments.set(name, this.pooled(ladders.map((ladder, g) => {
        const { mean, squares, cases } = ladder.moments(step, name);
        const { subtracted, dividedBy } = this.coding(g, name);
        const unit = t.constant(dividedBy);
        return { mean: t.accumulate(t.constant(subtracted), mean, unit), squares: t.multiply(squares, t.constant(dividedBy ** 2)), cases };
      }))); // prettier-ignore
    }
    this.sdY = this.pooled(ladders.map((ladder) => ladder.outcomeMoments())).sd;
  }

  value(kind: GroupMetric, group: number, column: string): Value {
    const { t, step } = this;
    if (kind === "betaOwn") return this.ladders[group]!.figure({ kind: "beta", step, column });
    const { spec } = this.groups[group]!;
    const ladder = this.ladders[group]!;
    const names = ladder.components(step);
    const standardized = kind === "beta";
    const isCoded = (name: string) => this.groups[group]!.design.codings.some((c) => c.variable === name);
    const shifts = names.map((name) => {
      if (!standardized && !isCoded(name)) return t.constant(0);
      const { subtracted, dividedBy } = this.coding(group, name);
      return t.multiply(t.subtract(this.moments.get(name)!.mean, t.constant(subtracted)), t.constant(1 / dividedBy));
    });
    const units = names.map((name) => {
      const divided = standardized || (isCoded(name) && spec.centring === "z");
      const raw = divided ? this.moments.get(name)!.sd : t.constant(1);
      return t.multiply(raw, t.constant(1 / this.coding(group, name).dividedBy));
    });
    const b = ladder.movedB(step, column, shifts, units);
    return standardized ? t.divide(b, this.sdY) : b;
  }

  private coding(group: number, name: string): { subtracted: number; dividedBy: number } {
    return this.groups[group]!.design.codings.find((c) => c.variable === name) ?? { subtracted: 0, dividedBy: 1 };
  }

  private pooled(groups: readonly { mean: Value; squares: Value; cases: Value }[]): { mean: Value; sd: Value } {
    const { t } = this;
    const cases = groups.reduce((sum, g) => t.add(sum, g.cases), t.constant(0));
    const mean = t.divide(
      groups.reduce((sum, g) => t.accumulate(sum, g.cases, g.mean), t.constant(0)),
      cases,
    );
    const squares = groups.reduce((sum, g) => {
      const d = t.subtract(g.mean, mean);
      return t.add(sum, t.accumulate(g.squares, g.cases, t.multiply(d, d)));
    }, t.constant(0));
    return { mean, sd: t.root(t.divide(squares, t.subtract(cases, t.constant(1)))) };
  }
}
