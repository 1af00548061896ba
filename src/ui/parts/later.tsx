"use client";

import dynamic from "next/dynamic";
import { type ComponentType, useEffect, useState } from "react";
import { onceAwake } from "./Awake";

/** After the page has woken nothing more is fetched for so long: the first numbers are on their way. */
const REST_MS = 1500;

/** Fetches code that is not needed yet, so that it is there when it is, also while the server is away. */
function inTime(load: () => Promise<unknown>): void {
  onceAwake(() => setTimeout(() => void load().catch(() => undefined), REST_MS)); // asked for again when it is needed
}

/** A part of a page that its first numbers do not wait for: its code is fetched after them, or at once where it is wanted before. */
export function laterPart<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  inTime(load);
  return dynamic(load, { ssr: false });
}

/** What stands in the field before the part is there. */
export interface Typed<T = string> {
  typed?: T | undefined;
}

/** A plain field in the place of one that is on its way. */
export interface Meanwhile<T = string> {
  /** Undefined until something was typed. */
  typed: T | undefined;
  onType: (typed: T) => void;
  /** True: the code could not be had; the next field of this kind asks for it again. */
  away: boolean;
}

/**
 * A field whose code is fetched once the page is awake, so that the page's first numbers do not wait for it. Where it is there it is drawn in the same moment: keys
 * may follow at once.
 * @param Plain stands in its place when it is opened before it is there; what was typed in it by then is handed on
 */
export function laterField<P extends object, T = string>(
  load: () => Promise<{ default: ComponentType<P & Typed<T>> }>,
  Plain: ComponentType<P & Meanwhile<T>>,
): ComponentType<P> {
  let there: ComponentType<P & Typed<T>> | null = null;
  let coming: Promise<unknown> | null = null;
  const fetched = () =>
    (coming ??= load().then(
      (module) => (there = module.default),
      () => (coming = null), // the plain field does meanwhile, and the next one asks again
    ));
  inTime(fetched);
  return function Later(props: P) {
    const [Field, setField] = useState(() => there);
    const [typed, setTyped] = useState<T>();
    const [away, setAway] = useState(false);
    useEffect(() => {
      if (!Field) void fetched().then(() => (there ? setField(() => there) : setAway(true)));
    }, [Field]);
    return Field ? (
      <Field {...props} typed={typed} />
    ) : (
      <Plain {...props} typed={typed} onType={(now) => setTyped(() => now)} away={away} />
    );
  };
}
