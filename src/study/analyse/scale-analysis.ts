import { reliabilityBootstrap, reliabilityFigures } from "@/core/resampling/reliability-bootstrap";
import type { Analysis, Desk, Ready } from "../kinds/kind";
import type { Scale } from "../model/scale";
import { answersOf, completeRows } from "../prepare/score-scale";
import { analyseScale, type ScaleResult } from "./analyse-scale";
import { scaleResults } from "./scale-results";

/** @throws RangeError with fewer than two items, or two respondents who answered all of them */
function ready(scale: Scale, { columns }: Desk): Ready {
  const { keyed, scores } = columns.scale(scale);
  const rows = completeRows(keyed, columns.kept(scores.values.length, scale.respondents));
  if (keyed.length < 2 || rows.length < 2) throw new RangeError("no reliability to resample");
  return { ...reliabilityBootstrap(answersOf(keyed, rows)), names: reliabilityFigures(keyed.length), units: rows.length };
}

export const analysis: Analysis<Scale, Scale, ScaleResult> = {
  run: (scale, { study, responses, columns }) => analyseScale(study, scale, responses, columns),
  results(scale, desk) {
    const result = this.run(scale, desk);
    return scaleResults(result, result.status === "scored" ? desk.columns.scale(scale).scores : null);
  },
  ready,
};
