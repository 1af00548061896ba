"use client";

import { searchWords } from "@/study/model/variable";
import { Select } from "antd";
import { useStudy } from "@/features/study/study-context";
import { matches } from "@/ui/parts/matches";
import css from "../responses.module.css";

/** The variable, or scale, a recipe starts from. */
export function FromField(props: { value: string; scales: boolean; label?: string; onChange: (name: string) => void }) {
  const { study } = useStudy();
  const scales = props.scales ? study.scales.map((s) => ({ value: s.id, label: s.name, search: s.id })) : [];
  const variables = study.codebook.map((v) => ({
    value: v.name,
    label: v.label ? `${v.name} ${v.label}` : v.name,
    search: searchWords(v),
  }));
  return (
    <label className={css.from}>
      {props.label ?? "of"}{" "}
      <Select
        size="small"
        aria-label={`Variable ${props.label ?? "it is made of"}`}
        style={{ width: 280 }}
        popupMatchSelectWidth={360}
        showSearch={{ filterOption: matches }}
        getPopupContainer={(node: HTMLElement) => node.parentElement!}
        value={props.value}
        options={[...scales, ...variables]}
        onChange={props.onChange}
      />
    </label>
  );
}
