"use client";

import { fitLine, lineAtPlace } from "@/core/describe/fit-line";
import { useStudy } from "@/features/study/study-context";
import type { Points } from "@/study/analyse/points-analysis";
import { formatValue } from "@/study/report/format-number";
import { ScatterChart } from "@/ui/charts/ScatterChart";
import { useMarked } from "./marked";
import { rangeOf } from "./range-of";

/** A pair in small, beside the table, as fast as it is pointed at. */
export function PairCard({ x, y, points: all }: { x: string; y: string; points: Points | null }) {
  const { title } = useStudy();
  const marked = useMarked();
  const [a, b] = [all?.columns.get(x), all?.columns.get(y)];
  if (!all || !a || !b) return null;
  const both = Int32Array.from([...a.keys()].filter((i) => !Number.isNaN(a[i]!) && !Number.isNaN(b[i]!)));
  const points = { x: Float64Array.from(both, (i) => a[i]!), y: Float64Array.from(both, (i) => b[i]!), group: null };
  const line = fitLine(points.x, points.y, 0.95);
  const range = rangeOf(points.x);
  const drawn = line
    ? Array.from({ length: 9 }, (_, i) => range[0] + ((range[1] - range[0]) * i) / 8).map((at) => ({ x: at, ...lineAtPlace(line, at) }))
    : [];
  return (
    <ScatterChart
      points={points}
      lines={line ? [{ name: "", group: null, points: drawn, look: "line" }] : []}
      marked={new Set([...both.keys()].filter((i) => marked.rows.has(all.rows[both[i]!]!)))}
      cursor={null}
      frame={{ width: 250, height: 220, names: false, x: range, y: rangeOf(points.y) }}
      title={`${title(y)} against ${title(x)}`}
      axis={title(x)}
      outcome={title(y)}
      format={formatValue}
    />
  );
}
