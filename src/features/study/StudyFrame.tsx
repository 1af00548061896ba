"use client";

import { usePathname } from "next/navigation";
import type { ReactNode } from "react";
import { counted, formatCount } from "@/study/report/format-number";
import { Masthead } from "@/ui/parts/Masthead";
import page from "@/ui/parts/page.module.css";
import { useStudy } from "./study-context";

/** Masthead with the flight, the state of saving, and the place below. */
export function StudyFrame({ children }: { children: ReactNode }) {
  const { store, study, dataset, fault, unsaved, canUndo } = useStudy();
  const pathname = usePathname();
  const count = (n: number, one: string) => (n === 0 ? `no ${one}s yet` : counted(n, one));
  const places: [string, string, string][] = [
    ["Theory", "theory", "not built yet"],
    ["Responses", "responses", `${formatCount(dataset.rows)} rows`],
    ["Scales", "scales", count(study.scales.length, "scale")],
    ["First look", "first-look", "not built yet"],
    ["Ladders", "ladders", count(study.ladders.length, "ladder")],
    ["Write-up", "write-up", "not built yet"],
  ];
  const treads = places.map(([name, path, words]) => {
    const href = `/studies/${store.id}/${path}`;
    return { name, href, count: words, current: pathname === href };
  });
  return (
    <>
      <Masthead study={study.name} treads={treads} />
      {fault && (
        <div className={page.fault} role="alert">
          <span>{fault}</span>
          <button type="button" className="link" onClick={() => store.dismissFault()}>
            Close
          </button>
        </div>
      )}
      {children}
      <footer className={page.saved}>
        <span role="status">{unsaved > 0 ? "Saving …" : "All changes saved"}</span>
        {canUndo && (
          <button type="button" className="link" onClick={() => void store.undo()}>
            Take the last change back
          </button>
        )}
      </footer>
    </>
  );
}
