"use client";

import { Button, Input, Select } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { OpenPoint } from "@/study/analyse/responses/open-points";
import { counted, formatValue } from "@/study/report/format-number";
import { openFix } from "@/study/report/open-words";
import { answerReader } from "@/study/prepare/answers/read-answers";
import page from "../responses.module.css";
import css from "./open.module.css";

type Amounts = Extract<OpenPoint, { kind: "amounts" }>;
const popup = { getPopupContainer: (node: HTMLElement) => node.parentElement! };

/** The rule by which numbers with words around them are read, with what it makes of the answers there are, before it is applied. */
export function AmountsEditor({ point, onClose }: { point: Amounts; onClose: () => void }) {
  const { study, store } = useStudy();
  const [rule, setRule] = useState(point.rule);
  const read = answerReader(rule);
  const all = [...point.all].map((one) => ({ ...one, value: read(one.written) }));
  const total = all.reduce((sum, one) => sum + (one.value === null ? 0 : one.count), 0);
  const keep = () => {
    const fix = openFix({ ...point, rule, read: total }, study);
    if (fix && store.edit(...fix.edits)) onClose();
  };
  return (
    <form
      className={css.editor}
      aria-label={`How ${point.variable} is read`}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <p className={css.rule}>
        A number beside words is read in{" "}
        <Input
          size="small"
          style={{ width: 70 }}
          aria-label="Unit"
          value={rule.unit}
          onChange={(event) => setRule({ ...rule, unit: event.target.value.trim() })}
        />
        , its fraction after a{" "}
        <Select
          size="small"
          {...popup}
          style={{ width: 90 }}
          aria-label="Mark before the fraction"
          value={rule.decimal}
          options={[
            { value: ".", label: "point" },
            { value: ",", label: "comma" },
          ]}
          onChange={(decimal) => setRule({ ...rule, decimal })}
        />
        ; “5-6” is read{" "}
        <Select
          size="small"
          {...popup}
          style={{ width: 130 }}
          aria-label="Spans"
          value={rule.spans}
          options={[
            { value: "middle", label: "as its middle" },
            { value: "none", label: "not at all" },
          ]}
          onChange={(spans) => setRule({ ...rule, spans })}
        />
        .
      </p>
      <div className={css.seen} tabIndex={0} role="region" aria-label={`What becomes of ${point.variable}`}>
        <table className={css.answers}>
          <thead>
            <tr>
              <th scope="col">Written</th>
              <th scope="col">Given</th>
              <th scope="col">Read as</th>
            </tr>
          </thead>
          <tbody>
            {all.slice(0, 200).map((one) => (
              <tr key={one.written}>
                <th scope="row">{one.written}</th>
                <td className={css.count}>{one.count}</td>
                <td className={css.count}>{one.value === null ? "not read" : formatValue(one.value)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className={page.ways}>
        <Button type="primary" size="small" htmlType="submit" disabled={total === 0}>
          Read {counted(total, "number")}
        </Button>
        <span className="quiet">
          {counted(
            all.reduce((sum, one) => sum + (one.value === null ? one.count : 0), 0),
            "cell stays",
            "cells stay",
          )}{" "}
          words and missing.
        </span>
        <button type="button" className="link" onClick={onClose}>
          Close
        </button>
      </p>
    </form>
  );
}
