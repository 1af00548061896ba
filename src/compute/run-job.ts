import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { analyseScale } from "@/study/analyse/analyse-scale";
import { answerStrip } from "@/study/analyse/answer-strip";
import type { ResponseSource } from "@/study/model/response-column";
import { StudyColumns } from "@/study/prepare/study-columns";
import type { Job, JobResults } from "./protocol/jobs";

/** Does one job. The same function runs in a browser worker, in Node and in a test. */
export function runJob(job: Job, responses: ResponseSource): JobResults[keyof JobResults] {
  switch (job.kind) {
    case "ladder":
      return analyseLadder(job.context, job.ladder, responses);
    case "scale":
      return analyseScale(job.context, job.scale, responses);
    case "strips": {
      const columns = new StudyColumns(job.context, responses);
      return job.variables.map((name) => answerStrip(columns.variable(name), columns.codebookRow(name)));
    }
  }
}
