/** How predictors are looked for. */
export const SEARCH_METHODS = ["forward-aic", "stepwise-aic", "forward-p", "stepwise-p", "stagewise", "least-angle", "lasso"] as const;
export type SearchMethod = (typeof SEARCH_METHODS)[number];
