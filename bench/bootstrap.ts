import { readFileSync } from "node:fs";
import { ladderModels, type LadderSpec } from "@/core/regression/ladder";
import { bcaLimits } from "@/core/resampling/interval-limits";
import { ladderBootstrap } from "@/core/resampling/ladder-bootstrap";
import { accelerationsOf, replicatesOf } from "@/core/resampling/resampler";
import type { EngineKind } from "@/core/resampling/engine/choose-engine";
import type { Figure } from "@/core/resampling/figures/figure";

/** One anchor of the founders' bench. */
const file = process.argv[2]!;
const kind = (process.argv[3] ?? "kernel") as EngineKind;
const B = Number(process.argv[4] ?? 10000);
const rounds = Number(process.argv[5] ?? 5);
const some = process.argv[6] === "anchor";
const raw = readFileSync(file);
const h = new Int32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + 256));
const [n, p, K] = [h[0]!, h[1]!, h[2]!];
const D = new Float64Array(raw.buffer.slice(raw.byteOffset + 256));
const variables = new Map<string, Float64Array>();
for (let j = 1; j < p - 1; j++)
  variables.set(
    `x${j}`,
    Float64Array.from({ length: n }, (_, i) => D[i * (p + 1) + j]!),
  );
variables.set(
  "y",
  Float64Array.from({ length: n }, (_, i) => D[i * (p + 1) + p]!),
);
const ends = Array.from({ length: K }, (_, k) => h[3 + k]!);
const [ia, ib] = [h[11]!, h[12]!];
const names = Array.from({ length: p - 1 }, (_, j) => (j === p - 2 ? [`x${ia}`, `x${ib}`] : [`x${j + 1}`]));
const spec: LadderSpec = {
  outcome: "y",
  centring: "mean",
  confidence: 0.95,
  steps: ends.map((end, k) => names.slice((ends[k - 1] ?? 1) - 1, end - 1).map((components) => ({ components }))),
};
for (let round = 0; round < rounds; round++) {
  const t0 = performance.now();
  const models = ladderModels(spec, variables);
  const t1 = performance.now();
  const figures: Figure[] | undefined = some
    ? [
        ...models.fits.at(-1)!.columns.flatMap((column): Figure[] => [
          { kind: "b", step: K - 1, column },
          { kind: "beta", step: K - 1, column },
        ]),
        ...ends.flatMap((_, step): Figure[] => [
          { kind: "R2", step },
          { kind: "dR2", step },
        ]),
      ]
    : undefined;
  const boot = ladderBootstrap(models, { by: "cases" }, figures, kind);
  const estimates = boot.estimates();
  const t2 = performance.now();
  const { values } = replicatesOf(boot, 1, { first: 0, count: B });
  const t3 = performance.now();
  const a = accelerationsOf(boot, estimates).figures;
  const t4 = performance.now();
  for (let k = 0; k < boot.figures; k++) bcaLimits(values.subarray(k * B, (k + 1) * B), estimates[k]!, a[k]!, 0.95);
  const t5 = performance.now();
  const ms = (x: number) => Math.round(x * 10) / 10;
  console.log(
    JSON.stringify({
      kind,
      figures: boot.figures,
      ms: ms(t5 - t0),
      fit: ms(t1 - t0),
      ready: ms(t2 - t1),
      replicates: ms(t3 - t2),
      jack: ms(t4 - t3),
      limits: ms(t5 - t4),
    }),
  );
}
