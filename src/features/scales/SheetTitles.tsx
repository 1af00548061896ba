"use client";

import { useStudy } from "@/features/study/study-context";
import { useOutdated } from "@/features/study/use-seen";
import type { Scale } from "@/study/model/scale";
import { counted } from "@/study/report/format-number";
import page from "@/ui/parts/page.module.css";
import { useDropPlace } from "./drag";
import css from "./scales.module.css";

/** What is open on the sheet. */
export interface Opened {
  kind: "scale" | "structure";
  id: string;
}

/** The score sheets by name, then the structures; items can be dropped on a scale's title. */
export function SheetTitles(props: { open: Opened | null; onOpen: (open: Opened) => void; onNewStructure: () => void }) {
  const outdated = useOutdated();
  const { study } = useStudy();
  const current = (kind: Opened["kind"], id: string) => props.open?.kind === kind && props.open.id === id;
  const stale = (key: string, here: boolean) => outdated.has(key) && !here && <span className={page.stale}> · out of date</span>;
  const enough = study.scales.flatMap((s) => s.items).length > 2 || study.codebook.filter((v) => v.kind === "item").length > 2;
  const { attach, isOver, carrying } = useDropPlace("new scale", { kind: "new" });
  return (
    <nav className={css.titleRow} aria-label="Scales and structures">
      <ul className={css.titles} aria-label="Scales">
        {study.scales.map((scale) => {
          const here = current("scale", scale.id);
          return (
            <ScaleTitle key={scale.id} scale={scale} here={here} onOpen={() => props.onOpen({ kind: "scale", id: scale.id })}>
              {stale(`scale ${scale.id}`, here)}
            </ScaleTitle>
          );
        })}
        <li
          ref={attach}
          className={`${css.newScale} ${carrying ? css.newScaleShown : ""} ${isOver ? css.titleOver : ""}`}
          aria-hidden="true"
        >
          a new scale
        </li>
      </ul>
      {enough && (
        <ul className={css.structures} aria-label="Structures">
          <li className="quiet">What lies behind the items:</li>
          {study.structures.map((structure) => {
            const here = current("structure", structure.id);
            return (
              <li key={structure.id}>
                <button
                  type="button"
                  aria-current={here ? "true" : undefined}
                  onClick={() => props.onOpen({ kind: "structure", id: structure.id })}
                >
                  {structure.name} <small>structure of {structure.items.length}</small>
                  {stale(`structure ${structure.id}`, here)}
                </button>
              </li>
            );
          })}
          <li>
            <button type="button" className={css.newStructure} onClick={props.onNewStructure}>
              {study.structures.length === 0 ? "look at the structure of all items" : "+ another structure"}
            </button>
          </li>
        </ul>
      )}
    </nav>
  );
}

function ScaleTitle({ scale, here, onOpen, children }: { scale: Scale; here: boolean; onOpen: () => void; children: React.ReactNode }) {
  const { attach, isOver } = useDropPlace(`title ${scale.id}`, { kind: "title", scale: scale.id, name: scale.name });
  return (
    <li ref={attach} className={isOver ? css.titleOver : undefined}>
      <button type="button" aria-current={here ? "true" : undefined} onClick={onOpen}>
        {scale.name}
        <small>
          {counted(scale.items.length, "item")}
          {children}
        </small>
      </button>
    </li>
  );
}
