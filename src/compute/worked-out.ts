import type { Analyses } from "@/study/analyse/results-document";
import { refKey, type WorkedOut } from "@/study/kinds/kind";
import { type AnyAsked, type AnyKept, ASKED, KEPT } from "@/study/kinds/kinds";
import { asked, objectsOf } from "@/study/kinds/standing";
import type { Study } from "@/study/model/study";
import { bootstrap, inParts, resampled, type RunJob } from "./replicates";
import { JobError } from "./worker-pool";

/** In smaller data what can be dealt out is done sooner than workers are started. */
const MANY_ROWS = 20_000;

type Computed = AnyKept & AnyAsked;
const COMPUTED = KEPT.filter((kind): kind is Computed => ASKED.some((one) => one.kind === kind.kind));

/**
 * What takes long of every object of a study, dealt out. What is refused has none: its refusal stands in the results.
 * @param file the columns of the data
 * @param atOnce how many ranges are asked for at a time
 */
export async function workedOut(
  study: Study,
  { rows, file }: { rows: number; file: readonly string[] },
  analyses: Analyses,
  run: RunJob,
  atOnce: number,
): Promise<Map<string, WorkedOut>> {
  const worked = new Map<string, WorkedOut>();
  const long = COMPUTED.flatMap((kind) => {
    const analysis = analyses.get(kind.kind)!;
    return objectsOf(study, kind).flatMap((object) => {
      const { context, spec } = asked(kind.kind, object, study, file);
      const wanted = kind.replicating?.(spec) ?? null;
      const how = wanted?.onRequest ? null : wanted;
      const dealt = rows > MANY_ROWS && analysis.dealt ? kind.joined : undefined;
      const key = refKey({ kind: kind.kind, id: kind.idOf(object) });
      return how || dealt ? [{ key, how, dealt, ground: { context, rows, of: { kind: kind.kind, spec } } }] : [];
    });
  });
  for (const { key, how, dealt, ground } of long) {
    try {
      const intervals = how && (await bootstrap(run, resampled(ground, true), how, how.compared, atOnce));
      const pieces = dealt && (await inParts(run, ground, dealt, atOnce));
      worked.set(key, { ...(intervals && { intervals }), ...(pieces != null && { dealt: pieces }) });
    } catch (error) {
      if (!(error instanceof JobError) || !error.refused) throw error; // a refusal stands in the results
    }
  }
  return worked;
}
