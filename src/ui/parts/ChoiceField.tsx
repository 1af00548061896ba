"use client";

import { Select } from "antd";
import type { DefaultOptionType } from "antd/es/select";
import { useEffect, useRef, useState } from "react";
import { matches } from "./matches";
import css from "./page.module.css";
import type { Choice } from "./choice";
import type { Typed } from "./later";

/** A list of so many choices is drawn whole: measuring which of them are in view takes longer at every change. */
const PLAIN = 150;

export interface ChoiceFieldProps {
  "aria-label": string;
  value: string | null;
  choices: readonly Choice[];
  width: number;
  placeholder?: string;
  onChoose: (value: string) => void;
  /** Also when what stands there already is chosen. */
  onDone?: () => void;
  onLeave: () => void;
}

/**
 * Choices as the select wants them, groups in order of first appearance. A group's heading is an option that cannot be
 * chosen: the select's own groups put attributes on headings that a screen reader is not allowed.
 */
function groupedOptions(choices: readonly Choice[]): DefaultOptionType[] {
  const groups = [...new Set(choices.map((c) => c.group))];
  return groups.flatMap((group): DefaultOptionType[] => {
    const own = choices
      .filter((c) => c.group === group)
      .map((c) => ({ value: c.value, label: c.label, search: `${c.label} ${c.search ?? ""}` }));
    return group === undefined ? own : [{ value: `group ${group}`, label: group, disabled: true, className: css.group }, ...own];
  });
}

/** An opened list of choices that can be searched by typing. */
export default function ChoiceField(props: ChoiceFieldProps & Typed) {
  const [search, setSearch] = useState(props.typed ?? "");
  const options = groupedOptions(props.choices);
  const opened = useRef(false);
  const early = useRef([...(props.entered ?? [])]);
  /** Not yet open, the list clears what it was handed: that is not heard. */
  const hear = (typed: string) => {
    if (opened.current || typed !== "") setSearch(typed);
  };
  // the list opens with the first effects, its own before this one
  useEffect(() => {
    opened.current = true;
    for (let typed = early.current.shift(); typed !== undefined; typed = early.current.shift()) {
      const first = typed === "" ? undefined : options.find((option) => !option.disabled && matches(typed!, option)); // what Enter takes in the open list
      if (!first) continue;
      props.onChoose(first.value as string);
      props.onDone?.();
      return; // the next one is for what this one has changed
    }
  }, [props, options]);
  return (
    <Select
      aria-label={props["aria-label"]}
      autoFocus
      defaultOpen
      value={props.value}
      placeholder={props.placeholder}
      popupMatchSelectWidth={320}
      style={{ width: props.width }}
      showSearch={{ filterOption: matches, searchValue: search, onSearch: hear }}
      options={options}
      listHeight={320}
      virtual={props.choices.length > PLAIN}
      getPopupContainer={(node: HTMLElement) => node.parentElement!}
      onChange={(value: string | null) => value !== null && props.onChoose(value)}
      onSelect={() => {
        setSearch("");
        props.onDone?.();
      }}
      onBlur={props.onLeave}
    />
  );
}
