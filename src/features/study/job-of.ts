import type { Job } from "@/compute/protocol/jobs";
import type { AskedName, AskedOf } from "@/study/kinds/kinds";
import { asked } from "@/study/kinds/standing";
import type { Study } from "@/study/model/study";

interface Dataset {
  columns: string[];
  rows: number;
}

interface Made {
  kind: string;
  study: Study;
  dataset: Dataset;
  job: Job;
  columns: string[];
}

/** The last job of each object: a page is drawn several times between two changes. */
const made = new WeakMap<object, Made>();
const texts = new WeakMap<object, string>();

/** The job behind what is asked: it holds everything the answer depends on. The same one while nothing has changed. */
export function jobOf<K extends AskedName>(kind: K, of: AskedOf<K>, study: Study, dataset: Dataset) {
  const object = of as object;
  let known = made.get(object);
  if (known?.kind !== kind || known.study !== study || known.dataset !== dataset) {
    const { context, spec, columns } = asked(kind, of, study, dataset.columns);
    known = { kind, study, dataset, job: { kind, context, rows: dataset.rows, spec } as Job, columns };
    made.set(object, known);
  }
  return { job: known.job as Extract<Job, { kind: K }>, columns: known.columns };
}

/** What is asked as one text, which is what its result is kept by. Each job in it is written once. */
export function textOf(asked: readonly unknown[]): string {
  const parts = asked.map((part) => {
    if (typeof part !== "object" || part === null) return JSON.stringify(part);
    const text = texts.get(part) ?? JSON.stringify(part);
    texts.set(part, text);
    return text;
  });
  return parts.join(",");
}
