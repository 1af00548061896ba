"use client";

import { createContext, type ReactNode, useContext, useState } from "react";

/** Rows of the data (from 1) that are marked in any picture of the place, and so in all of them. */
interface Marked {
  rows: ReadonlySet<number>;
  mark: (rows: Iterable<number>, add: boolean) => void;
  forget: () => void;
}

const Context = createContext<Marked | null>(null);

export function MarkedRespondents({ children }: { children: ReactNode }) {
  const [rows, setRows] = useState<ReadonlySet<number>>(new Set());
  const mark = (found: Iterable<number>, add: boolean) => setRows(add ? new Set([...rows, ...found]) : new Set(found));
  return <Context.Provider value={{ rows, mark, forget: () => setRows(new Set()) }}>{children}</Context.Provider>;
}

export function useMarked(): Marked {
  return useContext(Context)!;
}
