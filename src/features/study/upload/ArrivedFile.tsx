"use client";

import { Button, Input, InputNumber, Select } from "antd";
import { useRef, useState } from "react";
import type { GivenOptions, Understanding } from "@/files/reading/understanding";
import { formatCount } from "@/study/report/format-number";
import { type Arrived, discard, type Purpose, takeFile, type Taken, understandAgain } from "./upload-client";
import { useGrowing } from "@/ui/parts/use-growing";
import css from "./upload.module.css";

const WHAT: Record<Understanding["understood"][number]["what"], string> = {
  format: "Format",
  encoding: "Letters",
  delimiter: "Cells are parted by",
  decimal: "Decimal mark",
  sheet: "Table",
  header: "Names",
};
const ENCODINGS = [
  { value: "utf-8", label: "UTF-8" },
  { value: "windows-1252", label: "Windows-1252 (Latin-1)" },
  { value: "utf-16le", label: "UTF-16, low byte first" },
  { value: "utf-16be", label: "UTF-16, high byte first" },
];
const DELIMITERS = [
  { value: ",", label: "comma" },
  { value: ";", label: "semicolon" },
  { value: "\t", label: "tab" },
  { value: "|", label: "upright bar" },
];
const DECIMALS = [
  { value: ".", label: "point" },
  { value: ",", label: "comma" },
];
const popup = { getPopupContainer: (node: HTMLElement) => node.parentElement! };

/**
 * A file that has arrived, as it would be read: what was understood and why, each point open to correction, and its first rows.
 * Nothing is kept until it is taken.
 */
export function ArrivedFile(props: {
  file: Arrived;
  purpose: Purpose;
  /** The button that takes it. */
  action: string;
  /** Rank of its heading: the page's own, or one below it. */
  heading: "h1" | "h2";
  onTaken: (taken: Extract<Taken, { status: "study" | "staged" }>) => void;
  onClose: () => void;
}) {
  const { purpose, onTaken, heading: Heading } = props;
  const [file, setFile] = useState(props.file);
  const [given, setGiven] = useState<GivenOptions>({});
  const [asking, setAsking] = useState(false);
  const [rows, setRows] = useState<number | null>(null);
  const [refused, setRefused] = useState<{ code: string; message: string } | null>(null);
  const stop = useRef<AbortController | null>(null);
  const { understanding: u } = file;

  const say = async (next: GivenOptions) => {
    setGiven(next);
    setAsking(true);
    setRefused(null);
    const sent = await understandAgain(file.id, next);
    setAsking(false);
    if (sent.status === "arrived") setFile(sent.file);
    else if (sent.status === "refused") setRefused({ code: "understand", message: sent.message });
  };
  const take = async () => {
    stop.current = new AbortController();
    setRefused(null);
    setRows(0);
    const taken = await takeFile(file.id, u.options, purpose, setRows, stop.current.signal);
    setRows(null);
    if (taken.status === "refused") setRefused(taken);
    else if (taken.status !== "stopped") onTaken(taken);
  };
  const close = () => {
    discard(file.id);
    props.onClose();
  };
  const fault = refused ?? u.fault;
  const { shown, end } = useGrowing(u.columns.length);
  const options = { ...u.options };
  const rename = (at: number, name: string) => say({ ...given, names: u.columns.map((c, i) => (i === at ? name : c.name)) });

  return (
    <section className={css.arrived} aria-label={`How ${file.name} is read`}>
      <Heading>How {file.name} is read</Heading>
      <dl className={asking ? css.asking : undefined}>
        {u.understood.map(({ what, found, why }) => (
          <div key={what}>
            <dt>{WHAT[what]}</dt>
            <dd>
              {what === "encoding" ? (
                <Select
                  size="small"
                  aria-label="Letters"
                  {...popup}
                  style={{ width: 210 }}
                  value={options.encoding}
                  options={ENCODINGS}
                  onChange={(encoding) => void say({ ...given, encoding })}
                />
              ) : what === "delimiter" ? (
                <Select
                  size="small"
                  aria-label="Cells are parted by"
                  {...popup}
                  style={{ width: 130 }}
                  value={options.delimiter}
                  options={DELIMITERS}
                  onChange={(delimiter) => void say({ ...given, delimiter })}
                />
              ) : what === "decimal" ? (
                <Select
                  size="small"
                  aria-label="Decimal mark"
                  {...popup}
                  style={{ width: 100 }}
                  value={options.decimal}
                  options={DECIMALS}
                  onChange={(decimal) => void say({ ...given, decimal })}
                />
              ) : what === "sheet" && u.sheets.length > 1 ? (
                <Select
                  size="small"
                  aria-label="Table"
                  {...popup}
                  style={{ width: 210 }}
                  value={options.sheet}
                  options={u.sheets.map((s) => ({ value: s, label: s }))}
                  onChange={(sheet) => void say({ sheet })}
                />
              ) : what === "header" && options.format !== "json" ? (
                <HeaderRow options={options} onSay={(next) => void say({ ...given, ...next, names: null })} />
              ) : (
                <strong>{found}</strong>
              )}{" "}
              <span className="quiet">{why}.</span>
            </dd>
          </div>
        ))}
      </dl>
      {u.notices.length > 0 && (
        <ul className={css.notices}>
          {u.notices.map((notice) => (
            <li key={notice}>{notice}</li>
          ))}
        </ul>
      )}
      {fault && (
        <p role="alert" className={css.fault}>
          {fault.message} Nothing was kept.{" "}
          {u.mended && !refused && (
            <button type="button" className="link" onClick={() => void say({ ...given, names: u.mended })}>
              Use mended names: {u.mended.slice(0, 6).join(", ")}
              {u.mended.length > 6 && " …"}
            </button>
          )}
          {fault.code === "short-row" && (
            <button type="button" className="link" onClick={() => void say({ ...given, shortRows: "fill" })}>
              Let missing cells count as empty
            </button>
          )}
        </p>
      )}
      <div className={css.scroll} tabIndex={0} role="region" aria-label="First rows">
        <table>
          <thead>
            <tr>
              {u.columns.slice(0, shown).map((column, at) => (
                <th key={at} scope="col" title={column.label || undefined}>
                  <Input
                    size="small"
                    variant="borderless"
                    aria-label={`Name of column ${at + 1}`}
                    title={column.name}
                    defaultValue={column.name}
                    key={column.name}
                    onBlur={(event) =>
                      event.target.value.trim() !== column.name &&
                      event.target.value.trim() !== "" &&
                      void rename(at, event.target.value.trim())
                    }
                    onPressEnter={(event) => event.currentTarget.blur()}
                  />
                  <span className="quiet">{column.kind === "item" ? "scale item" : column.kind}</span>
                  {column.label && (
                    <span className={css.wording} title={[column.question, column.label].filter(Boolean).join(" – ")}>
                      {column.label}
                    </span>
                  )}
                </th>
              ))}
              {end && <th scope="col">{end}</th>}
            </tr>
          </thead>
          <tbody>
            {u.rows.map((row, i) => (
              <tr key={i}>
                {row.slice(0, shown).map((cell, k) => (
                  <td key={k} className={cell === null || Number.isNaN(Number(cell)) ? undefined : css.number}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className={css.ways}>
        {rows === null ? (
          <>
            <Button type="primary" disabled={u.fault !== null || asking} onClick={() => void take()}>
              {props.action}
            </Button>
            <button type="button" className="link" onClick={close}>
              Leave it
            </button>
            <span className="quiet">The first rows are shown; names can be changed in place. Kinds are guesses you can change later.</span>
          </>
        ) : (
          <>
            <span role="status">{rows === 0 ? "Reading …" : `${formatCount(rows)} rows read …`}</span>
            <button type="button" className="link" onClick={() => stop.current?.abort()}>
              Stop
            </button>
          </>
        )}
      </p>
    </section>
  );
}

/** Which rows hold the names, the wordings, and neither. */
function HeaderRow({ options, onSay }: { options: Understanding["options"]; onSay: (given: GivenOptions) => void }) {
  const { headerRow, wordingRow, leftOutRows } = options;
  const number = (label: string, value: number | null, onChange: (row: number | null) => void) => (
    <InputNumber size="small" aria-label={label} style={{ width: 64 }} min={1} max={1000} value={value} onChange={onChange} />
  );
  return (
    <>
      names in row {number("Row with the names", headerRow, (row) => onSay({ headerRow: row, leftOutRows: [] }))}, wordings in row{" "}
      {number("Row with the wordings", wordingRow, (row) => onSay({ headerRow, wordingRow: row, leftOutRows }))}
      {leftOutRows.length > 0 && (
        <>
          , left out: row {leftOutRows.join(", ")}{" "}
          <button type="button" className="link" onClick={() => onSay({ headerRow, wordingRow, leftOutRows: [] })}>
            they hold answers
          </button>
          {" · "}
        </>
      )}{" "}
      <button
        type="button"
        className="link"
        onClick={() => onSay({ headerRow: headerRow === null ? 1 : null, wordingRow: null, leftOutRows: [] })}
      >
        {headerRow === null ? "a row holds the names" : "no row holds names"}
      </button>
    </>
  );
}
