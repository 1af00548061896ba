"use client";

import { useMemo, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { SearchResult } from "@/study/analyse/analyse-search";
import { type Search, SearchMethod } from "@/study/model/search";
import { formatShare } from "@/study/report/format-number";
import { METHOD_WORDS, searchRows, searchTable } from "@/study/report/ladder/search-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { SearchLoom } from "@/ui/charts/SearchLoom";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import ladders from "../ladders.module.css";
import css from "./probes.module.css";

type Told = Extract<SearchResult, { status: "told" }>;

/** What each method takes at each size, with a rule for the size that is moved. */
export function SearchPicture({
  told,
  search,
  name,
  onSize,
}: {
  told: Told;
  search: Search;
  name: string;
  onSize: (size: number) => void;
}) {
  const { title } = useStudy();
  const [moved, setMoved] = useState<number | null>(null);
  const { searched, chosen } = told;
  const rows = useMemo(() => searchRows(told, title), [told, title]);
  const most = Math.max(...rows.flatMap((row) => row.cells.map((cell) => cell.size)));
  const line = (method: SearchMethod, of: "refitR2" | "heldOutR2") =>
    searched.bySize[method].flatMap((one) => (one[of] === null ? [] : [{ size: one.size, value: one[of] }]));
  const loom = (size: number, move?: (size: number) => void) => (
    <SearchLoom
      title={name}
      rows={rows}
      shown={search.method}
      lines={[
        { name: "R²", points: line(search.method, "refitR2") },
        { name: "held out", points: line(search.method, "heldOutR2") },
      ]}
      faint={SearchMethod.options
        .filter((method) => method !== search.method)
        .map((method) => ({ name: `held out, ${METHOD_WORDS[method]}`, points: line(method, "heldOutR2") }))}
      most={most}
      size={size}
      onSize={move}
      format={(v) => formatShare(v)}
    />
  );
  const rest = () => {
    if (moved !== null && moved !== chosen.size) onSize(moved);
    setMoved(null);
  };
  return (
    <ChartFrame
      title={name}
      note="columns that each method takes at each size; above, R² of least squares on them, controls included, and of respondents held out"
      saved={loom(chosen.size)}
      table={<PrintedTable table={searchTable(search, told, "", title)} className={ladders.table} testId="search" />}
    >
      <div className={css.wide} onPointerUp={rest} onKeyUp={rest}>
        {loom(moved ?? chosen.size, setMoved)}
      </div>
    </ChartFrame>
  );
}
