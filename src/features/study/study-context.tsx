"use client";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createContext, type ReactNode, use, useState, useSyncExternalStore } from "react";
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

/** Holds one study for all its places, so that going from tread to tread loads nothing again. */
export function StudyProvider(props: { id: string; study: Study; revision: number; dataset: DatasetFacts; children: ReactNode }) {
  const [house] = useState<StudyHouse>(() => ({
    store: new StudyStore(props.id, props.study, props.revision),
    columns: new ColumnStore(props.dataset.id),
    dataset: props.dataset,
  }));
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
