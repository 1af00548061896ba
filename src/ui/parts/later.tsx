"use client";

import { type ComponentType, useEffect, useState } from "react";
import { AWAKE } from "./Awake";

/** After the page has woken nothing more is fetched for so long: the first numbers are on their way. */
const REST_MS = 1500;

/** What stands in the field before the part is there. */
export interface Typed {
  typed?: string;
}

/**
 * A field whose code is fetched once the page is awake, so that the page's first numbers do not wait for it. One that is opened before it is there is a plain
 * field until then: what is entered in it is done at once, and what stands in it is handed on.
 * @param enter does what Enter means for what was typed
 */
export function laterField<P extends { "aria-label": string }>(
  load: () => Promise<{ default: ComponentType<P & Typed> }>,
  enter: (props: P, typed: string) => void,
): ComponentType<P> {
  let there: ComponentType<P & Typed> | null = null;
  let coming: Promise<unknown> | null = null;
  const fetched = () => (coming ??= load().then((module) => (there = module.default)));
  if (typeof document !== "undefined") document.addEventListener(AWAKE, () => setTimeout(() => void fetched(), REST_MS), { once: true });
  return function Later(props: P) {
    const [Field, setField] = useState(() => there);
    const [typed, setTyped] = useState("");
    useEffect(() => {
      if (!Field) void fetched().then(() => setField(() => there));
    }, [Field]);
    if (Field) return <Field {...props} typed={typed} />;
    return (
      <input
        aria-label={props["aria-label"]}
        autoFocus
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          enter(props, typed);
          setTyped("");
        }}
      />
    );
  };
}
