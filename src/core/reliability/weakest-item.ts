import type { Reliability } from "./cronbach-alpha";

/** The item (from 0) that goes with the rest least, where that and alpha without it are known; null when they are for none. */
export function weakestItem({ perItem }: Reliability): { item: number; r: number; alphaWithout: number } | null {
  let weakest: { item: number; r: number; alphaWithout: number } | null = null;
  perItem.forEach(({ withTheRest: r, alphaWithout }, item) => {
    if (r !== null && alphaWithout !== null && (weakest === null || r < weakest.r)) weakest = { item, r, alphaWithout };
  });
  return weakest;
}
