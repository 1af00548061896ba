"use client";

import { searchWords } from "@/study/model/variable";
import { useStudy } from "@/features/study/study-context";
import type { SheetOrder, Shown } from "@/study/analyse/responses/row-list";
import { counted, formatCount } from "@/study/report/format-number";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";

/** What the sheet shows, in which order, and how. */
export interface SheetView {
  shown: Shown;
  order: SheetOrder | null;
  as: "values" | "labels";
}

/** The heading of the responses: its underlined words say whom the sheet shows, in which order, and how. */
export function SheetSentence({ view, onView, shownCount }: { view: SheetView; onView: (view: SheetView) => void; shownCount: number }) {
  const { study, dataset, title } = useStudy();
  const { shown, order } = view;
  const inStudy = study.filters.some((f) => f.everywhere);
  const shownChoices = [
    { value: "all", label: "all respondents" },
    ...(inStudy ? [{ value: "in-study", label: "those who are in the study" }] : []),
    ...study.filters.flatMap((f) => [
      { value: `kept ${f.id}`, label: `kept by “${f.name}”`, group: "Filters" },
      { value: `left-out ${f.id}`, label: `left out by “${f.name}”`, group: "Filters" },
    ]),
    ...(shown.kind === "rows" ? [{ value: "rows", label: `the ${shown.rows.length} found` }] : []),
  ];
  const shownValue = shown.kind === "kept" || shown.kind === "left-out" ? `${shown.kind} ${shown.filter}` : shown.kind;
  const shownOf = (value: string): Shown => {
    const [kind, id] = value.split(" ");
    if ((kind === "kept" || kind === "left-out") && id !== undefined) return { kind, filter: id };
    return kind === "in-study" ? { kind } : kind === "rows" ? shown : { kind: "all" };
  };
  const orders = study.codebook.flatMap((v) => [
    { value: `up ${v.name}`, label: `${title(v.name)}, lowest first`, search: searchWords(v) },
    { value: `down ${v.name}`, label: `${title(v.name)}, highest first`, search: searchWords(v) },
  ]);
  return (
    <h1 className={page.sentence}>
      {dataset.rows === 0
        ? `No answers yet, ${counted(study.codebook.length, "variable")} planned. The sheet will show `
        : `${formatCount(dataset.rows)} respondents, ${counted(study.codebook.length, "variable")}, from ${dataset.fileName}. The sheet shows `}
      <SettingWord
        label="Respondents shown"
        value={shownValue}
        text={shownChoices.find((c) => c.value === shownValue)?.label ?? "all respondents"}
        choices={shownChoices}
        onChange={(value) => onView({ ...view, shown: shownOf(value) })}
      />
      {shown.kind !== "all" && ` (${formatCount(shownCount)})`} in the order of{" "}
      <SettingWord
        label="Order"
        value={order ? `${order.descending ? "down" : "up"} ${order.by}` : "file"}
        text={order ? `${title(order.by)}, ${order.descending ? "highest" : "lowest"} first` : "the file"}
        choices={[{ value: "file", label: "the file" }, ...orders]}
        onChange={(value) => {
          const space = value.indexOf(" ");
          onView({ ...view, order: space < 0 ? null : { by: value.slice(space + 1), descending: value.startsWith("down ") } });
        }}
      />
      , as{" "}
      <SettingWord
        label="Cells"
        value={view.as}
        text={view.as}
        choices={[
          { value: "values", label: "values" },
          { value: "labels", label: "labels" },
        ]}
        onChange={(as) => onView({ ...view, as: as as SheetView["as"] })}
      />
      .
    </h1>
  );
}
