"use client";

import { FieldWord } from "./FieldWord";
import { readNumber } from "./read-number";

/** A word that is a number and typed; left empty it is what holds where nothing is said. */
export function NumberWord(props: {
  label: string;
  value: number | null;
  /** As it reads in the sentence, whether somebody said it or not. */
  text: string;
  /** What it must look like, and what it is where it is left empty. */
  rule: string;
  least?: number;
  most?: number;
  whole?: boolean;
  /** True: it cannot be left empty. */
  required?: boolean;
  width?: number;
  onChange: (value: number | null) => void;
}) {
  const { value, least = -Infinity, most = Infinity } = props;
  return (
    <FieldWord
      label={props.label}
      text={props.text}
      initial={value === null ? "" : String(value)}
      unset={value === null}
      rule={props.rule}
      width={props.width ?? 100}
      read={(typed) => {
        if (typed.trim() === "") return props.required ? null : { value: null };
        const read = readNumber(typed);
        return read !== null && read >= least && read <= most && (!props.whole || Number.isInteger(read)) ? { value: read } : null;
      }}
      onChange={(to: { value: number | null }) => props.onChange(to.value)}
    />
  );
}
