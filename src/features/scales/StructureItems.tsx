"use client";

import { useStudy } from "@/features/study/study-context";
import type { Structure } from "@/study/model/structure";
import css from "./scales.module.css";

const LEAST = 3;

/** What a structure is of: whole scales or single items, ticked in the side. At least three stay. */
export function StructureItems({ structure, onChange }: { structure: Structure; onChange: (structure: Structure) => void }) {
  const { study, title } = useStudy();
  const variables = study.codebook.filter((v) => v.kind === "item" || structure.items.includes(v.name));
  const inScales = new Set(study.scales.flatMap((s) => s.items.map((i) => i.variable)));
  const groups = [
    ...study.scales.map((s) => ({ id: s.id, name: s.name, items: s.items.map((i) => i.variable) })),
    { id: "loose", name: "Items in no scale", items: variables.filter((v) => !inScales.has(v.name)).map((v) => v.name) },
    { id: "scores", name: "Scores of scales", items: study.scales.map((s) => s.id) },
  ].filter((group) => group.items.length > 0);
  const has = new Set(structure.items);
  const set = (names: readonly string[], on: boolean) => {
    const items = on ? [...structure.items, ...names.filter((name) => !has.has(name))] : structure.items.filter((n) => !names.includes(n));
    if (items.length >= LEAST) onChange({ ...structure, items });
  };
  const wouldBeTooFew = (names: readonly string[]) => structure.items.filter((n) => !names.includes(n)).length < LEAST;
  return (
    <>
      <h2 className={css.benchHead}>In this structure · {structure.items.length}</h2>
      {groups.map((group) => {
        const inside = group.items.filter((name) => has.has(name));
        const all = inside.length === group.items.length;
        return (
          <fieldset key={group.id} className={css.group}>
            <legend className="visually-hidden">{group.name}</legend>
            <label className={css.groupHead}>
              <input
                type="checkbox"
                checked={all}
                disabled={inside.length > 0 && all && wouldBeTooFew(group.items)}
                ref={(box) => {
                  if (box) box.indeterminate = inside.length > 0 && !all;
                }}
                onChange={() => set(group.items, !all)}
              />
              <span>
                {group.name}{" "}
                <small className="quiet">
                  {inside.length} of {group.items.length}
                </small>
              </span>
            </label>
            <details>
              <summary>one by one</summary>
              {group.items.map((name) => (
                <label key={name} className={css.benchItem}>
                  <input
                    type="checkbox"
                    checked={has.has(name)}
                    disabled={has.has(name) && wouldBeTooFew([name])}
                    onChange={() => set([name], !has.has(name))}
                  />
                  <span>
                    <b>{title(name)}</b> {study.codebook.find((v) => v.name === name)?.label}
                  </span>
                </label>
              ))}
            </details>
          </fieldset>
        );
      })}
    </>
  );
}
