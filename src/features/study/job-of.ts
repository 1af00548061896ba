import type { Job } from "@/compute/protocol/jobs";
import type { AskedName, AskedOf } from "@/study/kinds/kinds";
import { asked } from "@/study/kinds/standing";
import type { Study } from "@/study/model/study";

/** The job behind what is asked: it holds everything the answer depends on. */
export function jobOf<K extends AskedName>(kind: K, of: AskedOf<K>, study: Study, dataset: { columns: string[]; rows: number }) {
  const { context, spec, columns } = asked(kind, of, study, dataset.columns);
  return { job: { kind, context, rows: dataset.rows, spec } as Extract<Job, { kind: K }>, columns };
}
