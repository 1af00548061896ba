"use client";

import { Button, Input, InputNumber, Select } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { Variable, type VariableKind } from "@/study/model/variable";
import { KIND_WORDS } from "./CodebookEntry";
import css from "./responses.module.css";

/** Several rows of the codebook described at once: what is filled in becomes so in all of them, the rest stays as it is. */
export function ManyEntries({ variables, onClose }: { variables: readonly Variable[]; onClose: () => void }) {
  const { store } = useStudy();
  const [kind, setKind] = useState<VariableKind | null>(null);
  const [low, setLow] = useState<number | null>(null);
  const [high, setHigh] = useState<number | null>(null);
  const [missing, setMissing] = useState<string[]>([]);
  const [unit, setUnit] = useState("");
  const [labels, setLabels] = useState("");
  const [fault, setFault] = useState<string | null>(null);

  const keep = () => {
    if ((low === null) !== (high === null)) return setFault("Give both the lowest and the highest answer, or neither.");
    const levels = readLabels(labels);
    if (levels === null) return setFault("Write value labels as 1 = never; 2 = rarely.");
    const next = variables.map((v) =>
      Variable.safeParse({
        ...v,
        kind: kind ?? v.kind,
        range: low === null ? v.range : { low, high },
        missing: [...new Set([...v.missing, ...missing])],
        unit: unit.trim() || v.unit,
        levels: levels.length > 0 ? levels : v.levels,
      }),
    );
    const bad = next.find((p) => !p.success);
    if (bad?.error) return setFault(bad.error.issues[0]!.message);
    if (store.edit(...next.map((p) => ({ subject: "variable" as const, id: p.data!.name, to: p.data! })))) onClose();
  };

  return (
    <form
      className={`${css.fields} ${css.many}`}
      aria-label={`${variables.length} variables at once`}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <strong className={css.actions}>
        {variables.length} variables at once:{" "}
        {variables
          .slice(0, 4)
          .map((v) => v.name)
          .join(", ")}
        {variables.length > 4 && " …"}
      </strong>
      <label htmlFor="many-kind">Kind</label>
      <Select
        id="many-kind"
        aria-label="Kind of all"
        allowClear
        placeholder="as it is"
        value={kind}
        onChange={(value) => setKind(value ?? null)}
        options={Object.entries(KIND_WORDS).map(([value, label]) => ({ value, label }))}
      />
      <label htmlFor="many-low">Possible answers</label>
      <span className={css.pair}>
        <InputNumber id="many-low" aria-label="Lowest possible answer of all" style={{ width: 84 }} value={low} onChange={setLow} /> to{" "}
        <InputNumber aria-label="Highest possible answer of all" style={{ width: 84 }} value={high} onChange={setHigh} />
      </span>
      <label htmlFor="many-missing">Missing codes, added</label>
      <Select
        id="many-missing"
        aria-label="Missing codes of all"
        mode="tags"
        open={false}
        suffixIcon={null}
        tokenSeparators={[",", " "]}
        placeholder="such as −9"
        value={missing}
        onChange={(codes: string[]) => setMissing(codes.map((code) => code.replace("−", "-")))}
      />
      <label htmlFor="many-labels">Value labels</label>
      <Input id="many-labels" placeholder="1 = never; 2 = rarely" value={labels} onChange={(event) => setLabels(event.target.value)} />
      <label htmlFor="many-unit">Unit</label>
      <Input id="many-unit" value={unit} onChange={(event) => setUnit(event.target.value)} />
      <div className={css.actions}>
        <Button type="primary" size="small" htmlType="submit">
          Keep for all {variables.length}
        </Button>
        <button type="button" className="link" onClick={onClose}>
          Mark none
        </button>
      </div>
      {fault && (
        <p role="alert" className={css.actions}>
          {fault}
        </p>
      )}
    </form>
  );
}

/** `1 = never; 2 = rarely` as labels; null when it cannot be read so. */
export function readLabels(text: string): { value: string; label: string }[] | null {
  const parts = text
    .split(";")
    .map((part) => part.trim())
    .filter((part) => part !== "");
  const levels = parts.map((part) => {
    const at = part.indexOf("=");
    return at < 1 ? null : { value: part.slice(0, at).trim().replace(/^−/, "-"), label: part.slice(at + 1).trim() };
  });
  return levels.every((level) => level !== null && level.value !== "") ? (levels as { value: string; label: string }[]) : null;
}
