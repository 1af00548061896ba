"use client";

import { useSyncExternalStore } from "react";

const listeners = new Set<() => void>();
/** Where the browser keeps nothing, what was chosen holds until the page is left. */
const here = new Map<string, string>();

function kept(key: string): string | null {
  if (here.has(key)) return here.get(key)!;
  try {
    return localStorage.getItem(key);
  } catch {
    return null; // kept nothing, or not allowed to
  }
}

/**
 * A way of looking at things that this browser remembers: which columns, which figures. Never anything of the study itself.
 * @param read turns what was kept into a value, null when it is none
 */
export function useRemembered<T>(name: string, read: (kept: unknown) => T | null, first: T): [T, (value: T) => void] {
  const key = `beta-step ${name}`;
  const raw = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => kept(key),
    () => null,
  );
  const remember = (value: T) => {
    here.set(key, JSON.stringify(value));
    try {
      localStorage.setItem(key, JSON.stringify(value));
    } catch {
      // held in `here`
    }
    for (const listener of listeners) listener();
  };
  return [raw === null ? first : (read(parsed(raw)) ?? first), remember];
}

function parsed(raw: string): unknown {
  try {
    return JSON.parse(raw);
  } catch {
    return null;
  }
}
