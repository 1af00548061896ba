import { type ReactNode, useId } from "react";
import css from "./one-of.module.css";

/** A few words of which one holds: the arrow keys go from one to the next. */
export function OneOf<V extends string>(props: {
  label: string;
  value: V;
  options: readonly { value: V; label: ReactNode }[];
  onChange: (value: V) => void;
}) {
  const name = useId();
  return (
    <span role="radiogroup" aria-label={props.label} className={css.oneOf}>
      {props.options.map(({ value, label }) => (
        <label key={value}>
          <input type="radio" name={name} checked={props.value === value} onChange={() => props.onChange(value)} />
          <span>{label}</span>
        </label>
      ))}
    </span>
  );
}
