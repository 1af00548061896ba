"use client";

import { useState } from "react";
import { useStrips } from "@/features/study/use-computed";
import type { Variable } from "@/study/model/variable";
import { AnswerStrip } from "@/ui/charts/AnswerStrip";
import { itemRun, suggestScales } from "./suggest-scales";
import css from "./scales.module.css";

/** The items in no scale, with how they were answered; chosen ones become a scale or join the one that is open. */
export function ItemBench(props: {
  loose: readonly Variable[];
  openScale: string | null;
  onGather: (items: string[], name: string) => void;
  onJoin: (items: string[]) => void;
}) {
  const { loose } = props;
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const { result } = useStrips(loose.map((v) => v.name));
  const strips = new Map(result?.map((s) => [s.variable, s]));
  const picked = loose.filter((v) => chosen.has(v.name)).map((v) => v.name);
  const toggle = (name: string) =>
    setChosen((now) => (now.has(name) ? new Set([...now].filter((n) => n !== name)) : new Set([...now, name])));
  const done = (act: () => void) => {
    act();
    setChosen(new Set());
  };
  return (
    <>
      <h2 className={css.benchHead}>Items in no scale · {loose.length}</h2>
      {loose.length === 0 && <p className="quiet">Every item is in a scale. Take one out of its scale and it stands here again.</p>}
      <ul className={css.bench}>
        {loose.map((variable) => {
          const strip = strips.get(variable.name);
          return (
            <li key={variable.name}>
              <label className={css.benchItem}>
                <input type="checkbox" checked={chosen.has(variable.name)} onChange={() => toggle(variable.name)} />
                <span>
                  <b>{variable.name}</b> {variable.label}
                </span>
              </label>
              <div className={css.strip}>{strip && <AnswerStrip strip={strip} width={130} />}</div>
            </li>
          );
        })}
      </ul>
      {picked.length > 0 && (
        <>
          <p className={css.offer}>
            <button type="button" className="link" onClick={() => done(() => props.onGather(picked, "New scale"))}>
              Make a scale from {itemRun(picked)}
            </button>
          </p>
          {props.openScale !== null && (
            <p className={css.offer}>
              <button type="button" className="link" onClick={() => done(() => props.onJoin(picked))}>
                Add {itemRun(picked)} to {props.openScale}
              </button>
            </p>
          )}
        </>
      )}
      {suggestScales(loose).map(({ prefix, items }) => (
        <p key={prefix} className={css.offer}>
          <button type="button" className="link" onClick={() => done(() => props.onGather(items, prefix))}>
            Gather {itemRun(items)} into a scale?
          </button>
        </p>
      ))}
    </>
  );
}
