"use client";

import { useStudy } from "@/features/study/study-context";
import { SettingWord } from "@/ui/parts/SettingWord";

/** Among whom: the named filters of the study as a word of a sentence; nothing while there are none. */
export function RespondentsWords(props: { before: string; value: string | null; onChange: (filter: string | null) => void }) {
  const { study } = useStudy();
  const filters = study.filters.filter((f) => !f.everywhere);
  if (filters.length === 0) return null;
  return (
    <>
      {props.before}{" "}
      <SettingWord
        label="Respondents"
        value={props.value ?? "all"}
        text={filters.find((f) => f.id === props.value)?.name ?? "all respondents"}
        choices={[{ value: "all", label: "all respondents" }, ...filters.map((f) => ({ value: f.id, label: f.name }))]}
        onChange={(id) => props.onChange(id === "all" ? null : id)}
      />
    </>
  );
}
