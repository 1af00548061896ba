import { readFileSync } from "node:fs";
import { ladderModels, type LadderModels, type LadderSpec } from "@/core/regression/ladder";
import type { EngineKind } from "@/core/resampling/engine/choose-engine";
import { type Figure, figuresOf } from "@/core/resampling/figures/figure";
import { groupBootstrap, type GroupFigure } from "@/core/resampling/group-bootstrap";
import { bcaLimits } from "@/core/resampling/interval-limits";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { accelerationsOf, replicatesOf, type Resampling } from "@/core/resampling/resampler";

/** An anchor's data as its generator writes them: a header of 64 whole numbers, then rows of [1, x…, y]; rows stand group by group. */
export function readAnchor(file: string): { spec: LadderSpec; groups: Map<string, Float64Array>[] } {
  const raw = readFileSync(file);
  const header = new Int32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + 256));
  const values = new Float64Array(raw.buffer.slice(raw.byteOffset + 256, raw.byteOffset + raw.length));
  const [p, steps, groups] = [header[1]!, header[2]!, header[13]!];
  const ends = Array.from(header.slice(3, 3 + steps));
  const [first, second] = [`x${header[11]}`, `x${header[12]}`];
  const terms = Array.from({ length: p - 1 }, (_, j) => ({ components: j === p - 2 ? [first, second] : [`x${j + 1}`] }));
  let from = 0;
  const data = Array.from(header.slice(14, 14 + groups), (n) => {
    const column = (j: number) => Float64Array.from({ length: n }, (_, i) => values[(from + i) * (p + 1) + j]!);
    const own = new Map([...Array.from({ length: p - 2 }, (_, j) => [`x${j + 1}`, column(j + 1)] as const), ["y", column(p)] as const]);
    from += n;
    return own;
  });
  const spec: LadderSpec = {
    outcome: "y",
    centring: "raw",
    confidence: 0.95,
    steps: ends.map((end, k) => terms.slice((ends[k - 1] ?? 1) - 1, end - 1)),
  };
  return { spec, groups: data };
}

/** Which figures: those the anchors work out, or all that a page shows. */
export type Extent = "anchor" | "all";

/** A job made ready: what a worker does before it draws. */
export function ready(file: string, extent: Extent, kind: EngineKind): Resampling {
  const { spec, groups } = readAnchor(file);
  return readyFrom(spec, groups, extent, kind);
}

export function readyFrom(spec: LadderSpec, groups: Map<string, Float64Array>[], extent: Extent, kind: EngineKind): Resampling {
  const models = groups.map((data) => ladderModels(spec, data));
  const step = spec.steps.length - 1;
  if (models.length > 1) return groupBootstrap(models, step, slopes(models), kind);
  const [only] = models as [LadderModels];
  const anchors: Figure[] = [
    ...only.fits[step]!.columns.flatMap((column): Figure[] => [
      { kind: "b", step, column },
      { kind: "beta", step, column },
    ]),
    ...spec.steps.flatMap((_, k): Figure[] => [
      { kind: "R2", step: k },
      { kind: "dR2", step: k },
    ]),
  ];
  return ladderBootstrap(only, { by: "cases" }, extent === "anchor" ? anchors : figuresOf(only), kind);
}

/** b of every group, and every difference between two groups. */
function slopes(models: LadderModels[]): GroupFigure[] {
  const { columns } = models[0]!.fits[0]!;
  const own = models.flatMap((_, group) => columns.map((column): GroupFigure => ({ kind: "b", group, column })));
  const pairs = models.flatMap((_, first) => models.slice(first + 1).map((__, i) => [first, first + 1 + i] as const));
  const differences = pairs.flatMap(([first, second]) =>
    columns.map((column): GroupFigure => ({ kind: "difference", of: "b", column, first, second })),
  );
  return [...own, ...differences];
}

/** Limits of every figure from all its replicates. */
export function limits(values: Float64Array, count: number, estimates: Float64Array, accelerations: Float64Array): number {
  let clamped = 0;
  for (let k = 0; k < estimates.length; k++) {
    const found = bcaLimits(values.subarray(k * count, (k + 1) * count), estimates[k]!, accelerations[k]!, 0.95);
    if (found?.lowerClamped || found?.upperClamped) clamped++;
  }
  return clamped;
}

/** The whole job on one thread with the data in memory, in ms. */
export function wholeJob(spec: LadderSpec, groups: Map<string, Float64Array>[], extent: Extent, kind: EngineKind, count: number): number {
  const from = performance.now();
  const boot = readyFrom(spec, groups, extent, kind);
  const estimates = boot.estimates();
  const { values } = replicatesOf(boot, 1, { first: 0, count });
  limits(values, count, estimates, accelerationsOf(boot, estimates).figures);
  return performance.now() - from;
}
