"use client";

import { Fragment, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Variable } from "@/study/model/variable";
import { formatNumber } from "@/study/report/format-number";
import { CodebookEntry, KIND_WORDS } from "./CodebookEntry";
import css from "./responses.module.css";

/** The codebook: a row a variable; choosing one shows its answers, opening one lets it be described. */
export function Codebook({ chosen, onChoose }: { chosen: string | null; onChoose: (name: string) => void }) {
  const { study } = useStudy();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <div className={css.codebook} tabIndex={0} role="region" aria-label="Codebook">
      <table>
        <thead>
          <tr>
            <th scope="col">Variable</th>
            <th scope="col">Wording or label</th>
            <th scope="col">Kind</th>
            <th scope="col">Answers</th>
            <th scope="col">Missing</th>
          </tr>
        </thead>
        <tbody>
          {study.codebook.map((variable) => (
            <Row
              key={variable.name}
              variable={variable}
              chosen={chosen === variable.name}
              open={open === variable.name}
              onOpen={() => {
                onChoose(variable.name);
                setOpen(open === variable.name ? null : variable.name);
              }}
              onClose={() => setOpen(null)}
            />
          ))}
        </tbody>
      </table>
    </div>
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

function Row(props: { variable: Variable; chosen: boolean; open: boolean; onOpen: () => void; onClose: () => void }) {
  const { variable } = props;
  return (
    <>
      <tr className={props.chosen ? css.chosen : undefined}>
        <th scope="row">
          <button type="button" className={css.name} aria-expanded={props.open} onClick={props.onOpen}>
            {breakable(variable.name)}
          </button>
        </th>
        <td className={css.label}>{variable.label}</td>
        <td>{KIND_WORDS[variable.kind]}</td>
        <td>
          {variable.range
            ? `${formatNumber(variable.range.low, 0)} to ${formatNumber(variable.range.high, 0)}`
            : variable.kind === "category"
              ? `${variable.levels.length} levels`
              : ""}
        </td>
        <td>
          {variable.missing
            .filter((code) => code !== "")
            .map((code) => code.replace("-", "−"))
            .join(", ")}
        </td>
      </tr>
      {props.open && (
        <tr className={css.entry}>
          <td colSpan={5}>
            <CodebookEntry variable={variable} onClose={props.onClose} />
          </td>
        </tr>
      )}
    </>
  );
}
