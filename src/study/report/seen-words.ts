import type { SeenResult } from "../model/seen-result";
import { formatCount, formatShare, listed } from "./format-number";

/** What has changed in a result since it was last looked at, number by number; null when nothing that is told has. */
export function changedSince(before: SeenResult, now: SeenResult["numbers"]): string | null {
  const told = (value: number | null) =>
    value === null ? "none" : Number.isInteger(value) && Math.abs(value) > 1 ? formatCount(value) : formatShare(value, 3);
  const changes = now.flatMap(({ name, value }) => {
    const old = before.numbers.find((n) => n.name === name);
    return old && told(old.value) !== told(value) ? [`${name} was ${told(old.value)} and is ${told(value)}`] : [];
  });
  return changes.length === 0 ? null : `${listed(changes)}.`;
}
