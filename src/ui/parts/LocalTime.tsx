"use client";

import { useSyncExternalStore } from "react";

const never = () => () => {};

/** A moment as the reader's clock tells it; until the page is awake, as it is told at Greenwich, and says so. */
export function LocalTime({ at }: { at: string }) {
  const words = useSyncExternalStore(
    never,
    () => new Date(at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" }),
    () => `${at.slice(0, 16).replace("T", " ")} UTC`,
  );
  return <time dateTime={at}>{words}</time>;
}
