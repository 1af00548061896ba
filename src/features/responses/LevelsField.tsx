"use client";

import { Input } from "antd";
import type { ValueLabel } from "@/study/model/variable";
import css from "./responses.module.css";

/** Values and their words, a line each: the order of a category's levels is the order here. */
export function LevelsField({ levels, onChange }: { levels: readonly ValueLabel[]; onChange: (levels: ValueLabel[]) => void }) {
  const put = (at: number, level: Partial<ValueLabel>) => onChange(levels.map((l, i) => (i === at ? { ...l, ...level } : l)));
  const move = (at: number, by: number) => {
    const next = [...levels];
    const [taken] = next.splice(at, 1);
    next.splice(at + by, 0, taken!);
    onChange(next);
  };
  const wide = levels.some((level) => level.value.length > 9); // words as values are read whole
  return (
    <div className={css.levels}>
      {levels.map((level, at) => (
        <div key={at} className={css.level}>
          <Input
            size="small"
            aria-label={`Value ${at + 1}`}
            value={level.value}
            onChange={(e) => put(at, { value: e.target.value })}
            title={level.value}
            style={{ width: wide ? 230 : 84, flex: "none" }}
          />
          <Input
            size="small"
            aria-label={`Label of ${level.value}`}
            value={level.label}
            placeholder="label"
            onChange={(e) => put(at, { label: e.target.value })}
          />
          <button type="button" className="link" aria-label={`Move ${level.value} up`} disabled={at === 0} onClick={() => move(at, -1)}>
            ↑
          </button>
          <button
            type="button"
            className="link"
            aria-label={`Move ${level.value} down`}
            disabled={at === levels.length - 1}
            onClick={() => move(at, 1)}
          >
            ↓
          </button>
          <button
            type="button"
            className="link"
            aria-label={`Take ${level.value} out`}
            onClick={() => onChange(levels.filter((_, i) => i !== at))}
          >
            ×
          </button>
        </div>
      ))}
      <button type="button" className="link" onClick={() => onChange([...levels, { value: "", label: "" }])}>
        One more value
      </button>
    </div>
  );
}
