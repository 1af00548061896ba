"use client";

import { Input, InputNumber } from "antd";
import { useEffect, useEffectEvent } from "react";
import type { Histogram } from "@/core/describe/histogram";
import { useAsked } from "@/features/study/use-computed";
import type { Recipe, WrittenRecipe } from "@/study/model/derived";
import { formatNumber } from "@/study/report/format-number";
import { CutHistogram } from "@/ui/charts/CutHistogram";
import css from "../responses.module.css";
import { UNTOUCHED } from "./draft-recipe";

type Ranges = Extract<Recipe, { kind: "ranges" }>;

/** Edges drawn on the distribution: they are dragged there, moved with the arrow keys, or typed. */
export function RangesRecipe({ recipe, onChange }: { recipe: Ranges; onChange: (recipe: WrittenRecipe) => void }) {
  const { result } = useAsked("look", { name: recipe.from }, { subject: `look ${recipe.from}` });
  const look = result?.status === "seen" ? result.look : null;
  const d = look?.description;
  const whole = look?.grid === 1;
  const spread = d?.max != null && d.min != null ? d.max - d.min : 1;
  const unit = look?.grid ?? 10 ** Math.floor(Math.log10(spread / 50 || 1));
  const snapped = (edge: number) => Number((Math.round(edge / unit) * unit).toPrecision(12));
  const move = (at: number, to: number) => {
    const edges = recipe.edges.with(at, snapped(to));
    const between = edges.every((edge, i) => i === 0 || edge > edges[i - 1]!);
    if (between) onChange({ ...recipe, edges });
  };
  const add = () => {
    const last = recipe.edges.at(-1)!;
    const next = snapped(d?.max != null && d.max > last ? (last + d.max) / 2 : last + unit);
    onChange({
      ...recipe,
      edges: [...recipe.edges, next > last ? next : last + unit],
      labels: [...recipe.labels, `range ${recipe.labels.length + 1}`],
    });
  };
  const equal = (parts: number) => {
    const edges = look?.histogram ? equalCuts(look.histogram, parts).map(snapped) : [];
    const distinct = edges.filter((edge, i) => i === 0 || edge > edges[i - 1]!);
    if (distinct.length > 0) onChange({ ...recipe, edges: distinct, labels: named(distinct.length + 1) });
  };
  // a new recipe begins where it cuts something: between two groups of about equal size
  const untouched = recipe.edges.length === 1 && recipe.edges[0] === UNTOUCHED;
  const begin = useEffectEvent(() => equal(2));
  const ready = look !== null;
  useEffect(() => {
    if (untouched && ready) begin();
  }, [untouched, ready]);
  return (
    <>
      {look?.histogram && !untouched && (
        <CutHistogram
          histogram={look.histogram}
          width={620}
          height={130}
          title={recipe.from}
          edges={recipe.edges}
          labels={recipe.labels}
          unit={unit}
          format={(v) => formatNumber(v, whole ? 0 : 2)}
          onMove={move}
        />
      )}
      <div className={css.rangeRow}>
        {recipe.labels.map((label, i) => (
          <span key={i} className={css.pair}>
            <Input
              size="small"
              aria-label={`Name of range ${i + 1}`}
              style={{ width: 118 }}
              value={label}
              onChange={(event) => onChange({ ...recipe, labels: recipe.labels.with(i, event.target.value) })}
            />
            {i < recipe.edges.length && (
              <>
                below
                <InputNumber
                  size="small"
                  aria-label={`Edge ${i + 1}`}
                  style={{ width: 84 }}
                  value={recipe.edges[i]!}
                  step={unit}
                  onChange={(value) => value !== null && onChange({ ...recipe, edges: recipe.edges.with(i, value) })}
                />
                {recipe.edges.length > 1 && (
                  <button
                    type="button"
                    className="link"
                    aria-label={`Take edge ${i + 1} away`}
                    onClick={() => onChange({ ...recipe, edges: recipe.edges.toSpliced(i, 1), labels: recipe.labels.toSpliced(i + 1, 1) })}
                  >
                    ×
                  </button>
                )}
              </>
            )}
          </span>
        ))}
      </div>
      <p className={css.ways}>
        <button type="button" className="link" onClick={add}>
          One more edge
        </button>
        <button type="button" className="link" onClick={() => equal(2)}>
          Two groups of about equal size
        </button>
        <button type="button" className="link" onClick={() => equal(3)}>
          Three
        </button>
      </p>
    </>
  );
}

/** Where a distribution is cut into so many groups of about equal size. */
function equalCuts({ edges, counts }: Histogram, parts: number): number[] {
  const total = counts.reduce((a, b) => a + b, 0);
  const cuts: number[] = [];
  let sum = 0;
  counts.forEach((count, i) => {
    sum += count;
    if (cuts.length < parts - 1 && sum >= (total * (cuts.length + 1)) / parts) cuts.push(edges[i + 1]!);
  });
  return cuts;
}

const named = (count: number) =>
  count === 2 ? ["low", "high"] : count === 3 ? ["low", "middle", "high"] : Array.from({ length: count }, (_, i) => `range ${i + 1}`);
