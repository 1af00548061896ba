import { categoryWatches } from "./category-watches";
import type { LadderWatch } from "./ladder-fix";
import { collinearityWatches, perfectWatches, suppressionWatches } from "./model-watches";
import { looksWatches } from "./predictor-watches";
import { marginalityWatches, mediatorWatches, productWatches } from "./product-watches";
import { lostWatches, notableWatches } from "./respondent-watches";
import type { WatchInput } from "./watch-input";

/** Faults and cautions about a fitted ladder, the gravest first. */
export function ladderWatches(input: WatchInput): LadderWatch[] {
  return [
    ...marginalityWatches(input),
    ...perfectWatches(input),
    ...looksWatches(input),
    ...productWatches(input),
    ...mediatorWatches(input),
    ...categoryWatches(input),
    ...collinearityWatches(input),
    ...suppressionWatches(input),
    ...notableWatches(input),
    ...lostWatches(input),
  ];
}
