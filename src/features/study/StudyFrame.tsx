"use client";

import { usePathname } from "next/navigation";
import { type ReactNode, useEffect, useState, useSyncExternalStore } from "react";
import type { Place } from "@/study/kinds/kind";
import { TOLD } from "@/study/kinds/kinds";
import { counted, formatCount } from "@/study/report/format-number";
import { WRITTEN_IN } from "@/ui/parts/Awake";
import { laterField, laterPart } from "@/ui/parts/later";
import { Masthead } from "@/ui/parts/Masthead";
import page from "@/ui/parts/page.module.css";
import { GoToRespondent } from "./GoToRespondent";
import { type FinderProps, PlainFinder } from "./PlainFinder";
import { THEORY } from "@/study/model/theory";
import { useSeenStore, useStudy, useStudyState } from "./study-context";
import { useOutdated } from "./use-seen";

const TrailDrawer = laterPart(() => import("./TrailDrawer").then((of) => of.default), true);
const Finder = laterField<FinderProps>(() => import("./Finder"), PlainFinder);
const Shortcuts = laterPart(() => import("./Shortcuts").then((of) => of.default), true);

/** Masthead with the flight, the place below, and at the foot the state of saving, the trail, and the way to a respondent. */
export function StudyFrame({ children }: { children: ReactNode }) {
  const { store, study, dataset } = useStudy();
  const pathname = usePathname();
  const count = (n: number, one: string) => (n === 0 ? `no ${one}s yet` : counted(n, one));
  const outdated = useOutdated();
  const stale = (words: string, place: Place) => {
    const kinds = TOLD.filter((kind) => kind.place === place);
    const old = [...outdated].filter((key) => kinds.some((kind) => key.startsWith(`${kind.kind} `))).length;
    return old === 0 ? words : `${words}, ${old} out of date`;
  };
  const places: [string, string, string][] = [
    ["Theory", "theory", stale(useHypothesesWords(), "theory")],
    ["Responses", "responses", dataset.rows === 0 ? "no answers yet" : `${formatCount(dataset.rows)} rows`],
    ["Scales", "scales", stale(count(study.scales.length, "scale"), "scales")],
    ["First look", "first-look", stale(count(Math.max(1, study.looks.length), "look"), "first-look")],
    ["Ladders", "ladders", stale(count(study.ladders.length, "ladder"), "ladders")],
    [
      "Write-up",
      "write-up",
      study.blocks.length > 0
        ? counted(study.blocks.length, "block")
        : study.ladders.length === 0
          ? "nothing to write yet"
          : "composed by itself",
    ],
  ];
  const treads = places.map(([name, path, words]) => {
    const href = `/studies/${store.id}/${path}`;
    return { name, href, count: words, current: pathname === href };
  });
  return (
    <>
      <Masthead study={study.name} treads={treads} />
      <Fault />
      {children}
      <Foot />
    </>
  );
}

/** How many hypotheses are supported, as they stood when they were last looked at. */
function useHypothesesWords(): string {
  const { study } = useStudy();
  const seen = useSeenStore();
  const known = useSyncExternalStore(seen.subscribe, seen.snapshot, seen.snapshot);
  const n = study.hypotheses.length;
  if (n === 0) return "no hypotheses yet";
  const supported = known.get(`theory ${THEORY}`)?.numbers[0]?.value ?? null;
  return supported === null ? counted(n, "hypothesis", "hypotheses") : `${supported} of ${n} supported`;
}

/** What could not be done or saved. */
function Fault() {
  const { store } = useStudy();
  const { fault } = useStudyState();
  if (!fault) return null;
  return (
    <div className={page.fault} role="alert">
      <span>{fault}</span>
      <button type="button" className="link" onClick={() => store.dismissFault()}>
        Close
      </button>
    </div>
  );
}

type Opened = "trail" | "finder" | "shortcuts";

/** Whether all is saved, the ways back, the trail, the finder, and the way to a respondent. */
function Foot() {
  const { store } = useStudy();
  const { unsaved, turning, canUndo, canRedo } = useStudyState();
  const [open, setOpen] = useState<Opened | null>(null);
  const [trailed, setTrailed] = useState(false);
  const show = (what: Opened | null) => {
    setOpen(what);
    if (what === "trail") setTrailed(true);
  };
  useHouseKeys(show);
  return (
    <>
      <footer className={page.saved}>
        <span role="status">{unsaved + turning > 0 ? "Saving …" : "All changes saved"}</span>
        {canUndo && (
          <button type="button" className="link" onClick={() => void store.undo()}>
            Take the last change back
          </button>
        )}
        {canRedo && (
          <button type="button" className="link" onClick={() => void store.redo()}>
            Do it again
          </button>
        )}
        <button type="button" className="link" aria-expanded={open === "trail"} onClick={() => show("trail")}>
          Trail
        </button>
        <button type="button" className="link" aria-keyshortcuts="Control+K Meta+K" onClick={() => show("finder")}>
          Find
        </button>
        <GoToRespondent />
      </footer>
      {trailed && <TrailDrawer open={open === "trail"} onClose={() => setOpen(null)} />}
      {open === "finder" && <Finder onClose={() => setOpen(null)} onTrail={() => show("trail")} onShortcuts={() => show("shortcuts")} />}
      {open === "shortcuts" && <Shortcuts onClose={() => setOpen(null)} />}
    </>
  );
}

/** The keys that are heard everywhere (shortcut-list.ts). Inside a field the browser's own undo stays, and a question mark is one. */
function useHouseKeys(show: (what: Opened) => void): void {
  const { store } = useStudy();
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const { target } = event;
      const writing = target instanceof Element && target.closest(WRITTEN_IN) !== null;
      const held = event.ctrlKey || event.metaKey;
      const act = (): (() => void) | null => {
        if (held && !event.shiftKey && event.key.toLowerCase() === "k") return () => show("finder");
        if (writing) return null;
        if (held && event.key.toLowerCase() === "z") return () => void (event.shiftKey ? store.redo() : store.undo());
        return event.key === "?" ? () => show("shortcuts") : null;
      };
      const found = act();
      if (!found) return;
      event.preventDefault();
      found();
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  });
}
