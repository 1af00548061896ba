"use client";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createContext, type ReactNode, use, useState, useSyncExternalStore } from "react";
import { browserPool } from "@/compute/browser/browser-pool";
import type { Study } from "@/study/model/study";
import { titleOf } from "@/study/model/study";
import { ColumnStore } from "./column-store";
import { type StudyState, StudyStore } from "./study-store";

/** What the page needs to know of the responses without fetching them. */
export interface DatasetFacts {
  id: string;
  fileName: string;
  rows: number;
  columns: string[];
}

interface StudyHouse {
  store: StudyStore;
  columns: ColumnStore;
  dataset: DatasetFacts;
}

const House = createContext<StudyHouse | null>(null);

/** Up to this many cells are fetched before anyone asks: 18 MB. */
const CELLS_AT_ONCE = 2_000_000;

/** Starts what every place needs, while the page still wakes up: workers, and the columns of a study of usual size. */
function prepare(columns: ColumnStore, dataset: DatasetFacts): void {
  browserPool().warm();
  if (dataset.rows * dataset.columns.length <= CELLS_AT_ONCE) columns.columns(dataset.columns).catch(() => undefined); // asked again when needed
}

/** Holds one study for all its places, so that going from tread to tread loads nothing again. */
export function StudyProvider(props: { id: string; study: Study; revision: number; dataset: DatasetFacts; children: ReactNode }) {
  const [house] = useState<StudyHouse>(() => {
    const columns = new ColumnStore(props.dataset.id);
    if (typeof window !== "undefined") prepare(columns, props.dataset);
    return { store: new StudyStore(props.id, props.study, props.revision), columns, dataset: props.dataset };
  });
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: 1, refetchOnWindowFocus: false } } }),
  );
  return (
    <QueryClientProvider client={client}>
      <House value={house}>{props.children}</House>
    </QueryClientProvider>
  );
}

function useHouse(): StudyHouse {
  const house = use(House);
  if (!house) throw new Error("useStudy stands outside a StudyProvider");
  return house;
}

/** The study as it now stands, and the ways to change it. */
export function useStudy(): StudyState & StudyHouse & { title: (name: string) => string } {
  const house = useHouse();
  const state = useSyncExternalStore(house.store.subscribe, house.store.snapshot, house.store.snapshot);
  return { ...house, ...state, title: (name) => titleOf(state.study, name) };
}
