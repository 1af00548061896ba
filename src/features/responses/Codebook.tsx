"use client";

import { Input } from "antd";
import { Fragment, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { searchWords, type Variable } from "@/study/model/variable";
import { formatPlain } from "@/study/report/format-number";
import { CodebookEntry, KIND_WORDS } from "./CodebookEntry";
import { ManyEntries } from "./ManyEntries";
import { PasteBlock } from "./PasteBlock";
import { useGrowing } from "@/ui/parts/use-growing";
import css from "./responses.module.css";

/** The codebook: a row a variable; choosing one shows its answers, opening one lets it be described, marking several describes them at once. */
export function Codebook({ chosen, onChoose }: { chosen: string | null; onChoose: (name: string) => void }) {
  const { study } = useStudy();
  const [open, setOpen] = useState<string | null>(null);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [last, setLast] = useState<string | null>(null);
  const [pasting, setPasting] = useState(false);
  const [find, setFind] = useState("");
  const typed = find.trim().toLocaleLowerCase();
  const rows = study.codebook.filter((v) => typed === "" || `${searchWords(v)} ${v.note}`.toLocaleLowerCase().includes(typed));
  const derived = new Set(study.derived.map((d) => d.name));
  const { shown, end } = useGrowing(rows.length, rows.findIndex((v) => v.name === (open ?? chosen)) + 20);

  /** Marks one; with Shift, all from the one marked before. */
  const mark = (name: string, extend: boolean) => {
    const [a, b] = [rows.findIndex((v) => v.name === last), rows.findIndex((v) => v.name === name)];
    setMarked((before) => {
      const next = new Set(before);
      if (extend && a >= 0) for (const v of rows.slice(Math.min(a, b), Math.max(a, b) + 1)) next.add(v.name);
      else if (!next.delete(name)) next.add(name);
      return next;
    });
    setLast(name);
  };
  const still = study.codebook.filter((v) => marked.has(v.name));

  return (
    <>
      <div className={css.tools}>
        <Input
          size="small"
          allowClear
          aria-label="Find in the codebook"
          placeholder="find"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          style={{ width: 120 }}
        />
        <button
          type="button"
          className="link"
          onClick={() => setMarked(still.length === rows.length ? new Set() : new Set(rows.map((v) => v.name)))}
        >
          {still.length === rows.length && rows.length > 0 ? "Mark none" : "Mark all"}
        </button>
        <button type="button" className="link" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste a block
        </button>
      </div>
      {pasting && <PasteBlock onClose={() => setPasting(false)} />}
      {still.length > 1 && <ManyEntries variables={still} onClose={() => setMarked(new Set())} />}
      <div className={css.codebook} tabIndex={0} role="region" aria-label="Codebook">
        <table>
          <thead>
            <tr>
              <th scope="col">
                <span className="visually-hidden">Marked</span>
              </th>
              <th scope="col">Variable</th>
              <th scope="col">Wording or label</th>
              <th scope="col">Kind</th>
              <th scope="col">Answers</th>
              <th scope="col">Missing</th>
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, shown).map((variable, at) => (
              <Row
                key={variable.name}
                variable={variable}
                asked={variable.question !== rows[at - 1]?.question}
                derived={derived.has(variable.name)}
                chosen={chosen === variable.name}
                marked={marked.has(variable.name)}
                open={open === variable.name}
                onMark={(extend) => mark(variable.name, extend)}
                onOpen={() => {
                  onChoose(variable.name);
                  setOpen(open === variable.name ? null : variable.name);
                }}
                onClose={() => setOpen(null)}
              />
            ))}
            {end && (
              <tr>
                <td colSpan={6}>{end}</td>
              </tr>
            )}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** A long name may break after its underscores and dots, not inside its words. */
function breakable(name: string) {
  return name.split(/(?<=[_.])/).map((part, i) => (
    <Fragment key={i}>
      {i > 0 && <wbr />}
      {part}
    </Fragment>
  ));
}

interface RowProps {
  variable: Variable;
  /** Its question is said here, and not again for the items that follow. */
  asked: boolean;
  derived: boolean;
  chosen: boolean;
  marked: boolean;
  open: boolean;
  onMark: (extend: boolean) => void;
  onOpen: () => void;
  onClose: () => void;
}

function Row({ variable, asked, derived, chosen, marked, open, onMark, onOpen, onClose }: RowProps) {
  return (
    <>
      <tr className={chosen ? css.chosen : undefined}>
        <td>
          <input
            type="checkbox"
            aria-label={`Mark ${variable.name}`}
            checked={marked}
            onChange={(event) => onMark((event.nativeEvent as unknown as { shiftKey?: boolean }).shiftKey === true)}
          />
        </td>
        <th scope="row">
          <button type="button" className={css.name} aria-expanded={open} onClick={onOpen}>
            {breakable(variable.name)}
          </button>
          {derived && <span className={css.derivedMark}>worked out</span>}
        </th>
        <td className={css.label}>
          {asked && variable.question && <small className={css.question}>{variable.question}</small>}
          {variable.label}
          {variable.short && <span className="quiet"> · {variable.short}</span>}
          {variable.unit && <span className="quiet"> ({variable.unit})</span>}
        </td>
        <td>{KIND_WORDS[variable.kind]}</td>
        <td>
          {variable.range
            ? `${formatPlain(variable.range.low)} to ${formatPlain(variable.range.high)}`
            : variable.kind === "category"
              ? `${variable.levels.length} levels`
              : variable.levels.length > 0
                ? `${variable.levels.length} labelled`
                : ""}
        </td>
        <td>
          {variable.missing
            .filter((code) => code !== "")
            .map((code) => code.replace("-", "−"))
            .join(", ")}
        </td>
      </tr>
      {open && (
        <tr className={css.entry}>
          <td colSpan={6}>
            <CodebookEntry variable={variable} onClose={onClose} />
          </td>
        </tr>
      )}
    </>
  );
}
