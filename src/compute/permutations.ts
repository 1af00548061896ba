import type { Beyond } from "@/core/diagnostics/residual-tests";
import { again, type RunJob } from "./bootstrap";
import type { Job } from "./protocol/jobs";

/** Shuffles of a ladder's order, in ranges that can be dealt out to any number of workers: the counts are the same. */
export async function ladderPermutations(
  run: RunJob,
  asked: Pick<Extract<Job, { kind: "shuffles" }>, "context" | "ladder">,
  atOnce: number,
): Promise<Beyond[]> {
  const all = await again(() => run<"shuffles">({ kind: "shuffles", ...asked }));
  const each = Math.ceil(all / atOnce) || 1;
  const ranges = Array.from({ length: Math.ceil(all / each) }, (_, i) => ({ first: i * each, count: Math.min(each, all - i * each) }));
  const counted = await Promise.all(ranges.map((range) => again(() => run<"shuffled">({ kind: "shuffled", ...asked, ...range }))));
  const [first, ...rest] = counted;
  return (first ?? []).map(({ below, above }, k) => ({
    below: rest.reduce((sum, some) => sum + some[k]!.below, below),
    above: rest.reduce((sum, some) => sum + some[k]!.above, above),
  }));
}
