"use client";

import { notifyManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createContext, type ReactNode, use, useEffect, useState, useSyncExternalStore } from "react";
import { preload } from "react-dom";
import { browserPool } from "@/compute/browser/browser-pool";
import type { Ladder } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";
import { titleOf } from "@/study/model/study";
import type { Titles } from "@/study/report/level-title";
import type { SeenResult } from "@/study/model/seen-result";
import { columnAddresses, ColumnStore } from "./column-store";
import { type DatasetFacts, datasetOf } from "./dataset-facts";
import { beginEarly } from "./early-job";
import { jobOf, textOf } from "./job-of";
import { openedLadder } from "./opened-ladder";
import { SeenStore } from "./seen-store";
import { type StudyState, StudyStore, type Turns } from "./study-store";

interface StudyHouse {
  store: StudyStore;
  seen: SeenStore;
  /** The same view for the same document: made once, for whoever asks. */
  viewOf: (study: Study) => StudyView;
  /** Lets go of the columns, here and in the workers. */
  forget: () => void;
}

// numbers are drawn in the turn in which they come: the library waits for a timer, behind whatever else stands in line
notifyManager.setScheduler(queueMicrotask);

const House = createContext<StudyHouse | null>(null);

/** Up to this many cells are fetched before anyone asks: 18 MB. */
const CELLS_AT_ONCE = 2_000_000;

/** The ladder whose numbers a person who comes here waits for; null where the address leads elsewhere. */
function awaitedLadder(study: Study): Ladder | null {
  const params = new URLSearchParams(window.location.search);
  const here = window.location.pathname.endsWith("/ladders") && !params.has("beside");
  return here ? openedLadder(study, params.get("ladder")) : null;
}

/** Up to this many are fetched a column at a time, once the page has settled: 72 MB. */
const CELLS_IN_TIME = 8_000_000;
const SETTLED_MS = 3000;

/** Starts what every place needs, while the page still wakes up: workers, and the columns of a study of usual size. Columns that fail are asked for again when needed. */
function prepare(columns: ColumnStore, dataset: DatasetFacts, study: Study): void {
  // one for the first numbers; the others wake up once these are there
  browserPool().warm(1);
  setTimeout(() => browserPool().warm(), SETTLED_MS);
  const cells = dataset.rows * dataset.columns.length;
  if (cells <= CELLS_AT_ONCE) {
    void columns.columns(dataset.columns).catch(() => undefined);
    const ladder = awaitedLadder(study);
    if (!ladder) return;
    const asked = jobOf("ladder", ladder, study, dataset);
    beginEarly(asked.job, dataset.id, columns.columns(asked.columns));
  } else if (cells <= CELLS_IN_TIME) setTimeout(() => void oneByOne(columns, dataset.columns), SETTLED_MS);
}

/**
 * The columns this page has, by dataset. Not a provider's own: while parts of the page are still on their way, it is rendered again and again before it stands, and each
 * time would fetch everything anew, which on a slow machine kept the parts themselves from coming.
 */
const storesOfPage = new Map<string, ColumnStore>();

async function oneByOne(columns: ColumnStore, names: readonly string[]): Promise<void> {
  for (const name of names) await columns.columns([name]).catch(() => undefined);
}

/** Holds one study for all its places, so that going from tread to tread loads nothing again. */
export function StudyProvider(props: {
  id: string;
  study: Study;
  revision: number;
  /** What can be taken back, and done again. */
  turns: Turns;
  seen: SeenResult[];
  children: ReactNode;
}) {
  const [house] = useState<StudyHouse>(() => {
    const stores = typeof window === "undefined" ? new Map<string, ColumnStore>() : storesOfPage;
    const columnsOf = (dataset: string) => {
      const store = stores.get(dataset) ?? new ColumnStore(dataset);
      stores.set(dataset, store);
      return store;
    };
    const dataset = datasetOf(props.study);
    const begun = stores.has(dataset.id);
    if (typeof window !== "undefined" && !begun) prepare(columnsOf(dataset.id), dataset, props.study);
    const forget = () => {
      for (const dataset of stores.keys()) browserPool().forget(dataset);
      stores.clear();
    };
    const store = new StudyStore(props.id, props.study, props.revision, props.turns);
    const views = new WeakMap<Study, StudyView>();
    const viewOf = (study: Study) => {
      const known = views.get(study);
      if (known) return known;
      const of = datasetOf(study);
      const title: Titles = (name, level) => titleOf(study, name, level);
      const view = { study, store, dataset: of, columns: columnsOf(of.id), title };
      views.set(study, view);
      return view;
    };
    return { store, viewOf, seen: new SeenStore(props.id, props.seen), forget };
  });
  const { forget } = house;
  usePreloadedColumns(props.study);
  useEffect(() => forget, [forget]);
  useEffect(() => house.store.resume(), [house]);
  // what nothing shows is kept five minutes in a browser and not at all on the server, by the library's own choice: where a query
  // names a time of its own, a timer of the server holds the whole page for as long
  const [client] = useState(
    // the library would sort the keys of everything in what is asked, each time a part is drawn
    () =>
      new QueryClient({
        defaultOptions: { queries: { staleTime: Infinity, retry: 1, refetchOnWindowFocus: false, queryKeyHashFn: textOf } },
      }),
  );
  return (
    <QueryClientProvider client={client}>
      <House value={house}>{props.children}</House>
    </QueryClientProvider>
  );
}

/** Tells the browser of the columns before the scripts run that ask for them. */
function usePreloadedColumns(study: Study): void {
  const { id, rows, columns } = datasetOf(study);
  if (rows * columns.length > CELLS_AT_ONCE) return;
  for (const address of columnAddresses(id, columns)) preload(address, { as: "fetch", crossOrigin: "anonymous" });
}

function useHouse(): StudyHouse {
  const house = use(House);
  if (!house) throw new Error("useStudy stands outside a StudyProvider");
  return house;
}

/** What results were when they were last looked at. */
export function useSeenStore(): SeenStore {
  return useHouse().seen;
}

/** What a page knows of its study: the document, the responses it stands on, and the words for its names. */
export interface StudyView {
  study: Study;
  store: StudyStore;
  columns: ColumnStore;
  dataset: DatasetFacts;
  title: Titles;
}

/** The study as it now stands, and the ways to change it. Draws anew when the document has changed, and for nothing else. */
export function useStudy(): StudyView {
  const { store, viewOf } = useHouse();
  const document = () => store.snapshot().study;
  const study = useSyncExternalStore(store.subscribe, document, document);
  return viewOf(study);
}

/** Whether all is saved, what could not be, and what can be taken back: what changes while the document stays. */
export function useStudyState(): StudyState {
  const { store } = useHouse();
  return useSyncExternalStore(store.subscribe, store.snapshot, store.snapshot);
}
