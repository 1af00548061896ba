"use client";

import { Button, InputNumber } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { OpenPoint } from "@/study/analyse/responses/open-points";
import { counted, formatPlain } from "@/study/report/format-number";
import { rangeEdits } from "@/study/report/open-words";
import page from "../responses.module.css";
import css from "./open.module.css";

/** Lowest and highest possible answer of a family, where it was not what was given. */
export function RangeEditor({ point, onClose }: { point: Extract<OpenPoint, { kind: "range" }>; onClose: () => void }) {
  const { study, store } = useStudy();
  const [low, setLow] = useState<number | null>(point.low);
  const [high, setHigh] = useState<number | null>(point.high);
  const sound = low !== null && high !== null && low < high;
  const outside = sound ? point.values.filter(({ value }) => value < low || value > high) : [];
  return (
    <form
      className={css.editor}
      aria-label="Possible answers"
      onSubmit={(event) => {
        event.preventDefault();
        if (sound && store.edit(...rangeEdits(point.variables, { low, high }, study))) onClose();
      }}
    >
      <p className={page.ways}>
        <span>
          From <InputNumber size="small" aria-label="Lowest possible answer" style={{ width: 70 }} value={low} onChange={setLow} /> to{" "}
          <InputNumber size="small" aria-label="Highest possible answer" style={{ width: 70 }} value={high} onChange={setHigh} />
        </span>
        <Button type="primary" size="small" htmlType="submit" disabled={!sound}>
          Keep for {point.variables.length === 1 ? point.variables[0] : `all ${point.variables.length}`}
        </Button>
        <button type="button" className="link" onClick={onClose}>
          Close
        </button>
      </p>
      <p className="quiet">
        Given were {point.values.map(({ value, count }) => `${formatPlain(value)} (${count})`).join(", ")}.
        {outside.length > 0 &&
          ` ${counted(
            outside.reduce((sum, one) => sum + one.count, 0),
            "answer lies",
            "answers lie",
          )} outside.`}
      </p>
    </form>
  );
}
