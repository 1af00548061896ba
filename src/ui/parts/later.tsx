"use client";

import { type ComponentType, useCallback, useEffect, useState } from "react";
import { onceAwake } from "./Awake";
import page from "./page.module.css";

/** After the page has woken nothing more is fetched for so long: the first numbers are on their way. */
const REST_MS = 1500;

/** Fetches code that is not needed yet, so that it is there when it is, also while the server is away. */
function inTime(load: () => Promise<unknown>): void {
  onceAwake(() => setTimeout(() => void load().catch(() => undefined), REST_MS)); // asked for again when it is needed
}

/**
 * Code that is fetched once the page is awake, or when it is first wanted.
 * @returns what is there; what fetches it, true where it then is
 */
function fetchedLater<T>(load: () => Promise<T>): { there: () => T | null; fetched: () => Promise<boolean> } {
  let there: T | null = null;
  let coming: Promise<boolean> | null = null;
  const fetched = () =>
    (coming ??= load().then(
      (code) => {
        there = code;
        return true;
      },
      () => {
        coming = null; // the next one asks again
        return false;
      },
    ));
  inTime(fetched);
  return { there: () => there, fetched };
}

/**
 * A part of a page that its first numbers do not wait for: its code is fetched after them, or at once where it is wanted before. Where it cannot be had it is said in its
 * place, and the rest of the page stays.
 * @param over true: it lies over the page, and so does what is said of it
 */
export function laterPart<P extends object>(load: () => Promise<ComponentType<P>>, over = false): ComponentType<P> {
  const { there, fetched } = fetchedLater(load);
  return function Later(props: P) {
    const [Part, setPart] = useState(there);
    const [away, setAway] = useState(false);
    const ask = useCallback(() => void fetched().then((here) => (here ? setPart(there) : setAway(true))), []);
    useEffect(() => {
      if (!Part) ask();
    }, [Part, ask]);
    if (Part) return <Part {...props} />;
    return away ? (
      <p role="alert" className={over ? `${page.fault} ${page.unfetched}` : page.refusal}>
        This part could not be fetched: Beta Step does not answer.{" "}
        <button type="button" className="link" onClick={ask}>
          Try again
        </button>
      </p>
    ) : null;
  };
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
  const { there, fetched } = fetchedLater(load);
  return function Later(props: P) {
    const [Field, setField] = useState(() => there()?.default ?? null);
    const [typed, setTyped] = useState<T>();
    const [away, setAway] = useState(false);
    useEffect(() => {
      if (!Field) void fetched().then((here) => (here ? setField(() => there()!.default) : setAway(true)));
    }, [Field]);
    return Field ? (
      <Field {...props} typed={typed} />
    ) : (
      <Plain {...props} typed={typed} onType={(now) => setTyped(() => now)} away={away} />
    );
  };
}
