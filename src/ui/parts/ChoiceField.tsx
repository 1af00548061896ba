"use client";

import { Select } from "antd";
import type { DefaultOptionType } from "antd/es/select";
import { useEffect, useRef, useState } from "react";
import { ThemeProvider } from "../theme/ThemeProvider";
import { inGroups, matches, searched } from "./matches";
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
 * Choices as the select wants them. A group's heading is an option that cannot be chosen: the select's own groups put attributes on headings that a screen
 * reader is not allowed.
 */
function groupedOptions(choices: readonly Choice[]): DefaultOptionType[] {
  return inGroups(choices).flatMap(({ group, own }): DefaultOptionType[] => {
    const options = own.map((c) => ({ value: c.value, label: c.label, search: searched(c) }));
    return group === undefined ? options : [{ value: `group ${group}`, label: group, disabled: true, className: css.group }, ...options];
  });
}

/** An opened list of choices that can be searched by typing. */
export default function ThemedChoiceField(props: ChoiceFieldProps & Typed) {
  return (
    <ThemeProvider>
      <ChoiceField {...props} />
    </ThemeProvider>
  );
}

function ChoiceField(props: ChoiceFieldProps & Typed) {
  const [search, setSearch] = useState(props.typed ?? "");
  const options = groupedOptions(props.choices);
  const opened = useRef(false);
  /** Not yet open, the list clears what it was handed: that is not heard. */
  const hear = (typed: string) => {
    if (opened.current || typed !== "") setSearch(typed);
  };
  // the list opens with the first effects, its own before this one
  useEffect(() => {
    opened.current = true;
  }, []);
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
