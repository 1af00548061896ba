"use client";

import { Button, Select } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { ArrivedFile } from "@/features/study/upload/ArrivedFile";
import { FileDrop } from "@/features/study/upload/FileDrop";
import type { Arrived, Purpose } from "@/features/study/upload/upload-client";
import type { AppendReport, ResponseDifferences, StagedResponses } from "@/study/prepare/staged-responses";
import { counted, formatCount, listed } from "@/study/report/format-number";
import css from "./responses.module.css";

/** Further respondents, or a corrected file: looked at, compared, and taken as one recorded change. */
export function FurtherResponses() {
  const { study, store, dataset } = useStudy();
  const planned = dataset.rows === 0;
  const [file, setFile] = useState<Arrived | null>(null);
  const [kind, setKind] = useState<"append" | "replace">("append");
  const codes = study.codebook.filter((v) => v.kind === "code").map((v) => v.name);
  const [key, setKey] = useState<string | null>(codes[0] ?? null);
  const [staged, setStaged] = useState<StagedResponses | null>(null);
  const purpose: Purpose = kind === "append" ? { kind, study: store.id } : { kind, study: store.id, key };

  /** The next file is asked about anew: a wave of respondents must not replace those before it because the last file did. */
  const clear = () => {
    setStaged(null);
    setFile(null);
    setKind("append");
  };
  const leave = () => {
    if (staged) void fetch(`/api/datasets/${staged.dataset}`, { method: "DELETE" }).catch(() => undefined); // swept at the next start
    clear();
  };
  const take = () => {
    if (staged && store.edit(...staged.edits)) clear();
  };

  if (staged) {
    return (
      <div className={css.recipe} aria-label="What would change" role="region">
        {staged.kind === "append" ? (
          <AppendWords report={staged.report} />
        ) : (
          <Differences of={staged.differences} idle={staged.correctionsIdle} />
        )}
        <div className={css.ways}>
          <Button type="primary" size="small" onClick={take}>
            {staged.kind === "append" ? `Add these ${formatCount(staged.report.rowsAdded)} respondents` : "Take the corrected file"}
          </Button>
          <button type="button" className="link" onClick={leave}>
            Leave the responses as they are
          </button>
          <span className="quiet">Codebook, scales and ladders stay; it can be taken back.</span>
        </div>
      </div>
    );
  }
  if (file) {
    return (
      <div className={css.recipe}>
        {!planned && (
          <p className={css.from}>
            This file{" "}
            <Select
              size="small"
              aria-label="What the file is"
              style={{ width: 230 }}
              getPopupContainer={(node: HTMLElement) => node.parentElement!}
              value={kind}
              onChange={setKind}
              options={[
                { value: "append", label: "holds further respondents" },
                { value: "replace", label: "is a corrected file" },
              ]}
            />{" "}
            {kind === "replace" && (
              <>
                whose respondents are matched{" "}
                <Select
                  size="small"
                  aria-label="How respondents are matched"
                  style={{ width: 220 }}
                  getPopupContainer={(node: HTMLElement) => node.parentElement!}
                  value={key ?? ""}
                  onChange={(value) => setKey(value === "" ? null : value)}
                  options={[{ value: "", label: "row by row" }, ...study.codebook.map((v) => ({ value: v.name, label: `by ${v.name}` }))]}
                />
              </>
            )}
          </p>
        )}
        <ArrivedFile
          file={file}
          purpose={purpose}
          action="Read it and show what would change"
          heading="h2"
          onTaken={(taken) => taken.status === "staged" && setStaged(taken.staged)}
          onClose={() => setFile(null)}
        />
      </div>
    );
  }
  return (
    <FileDrop
      small
      words={planned ? "Drop the answers here, or" : "Drop further respondents, or a corrected file, here, or"}
      hint="You see what it changes before it does."
      onArrived={setFile}
    />
  );
}

function AppendWords({ report: r }: { report: AppendReport }) {
  const first = r.rowsBefore === 0;
  return (
    <>
      <p>
        {r.rowsBefore === 0
          ? `${formatCount(r.rowsAdded)} respondents would come in.`
          : `${formatCount(r.rowsAdded)} respondents would follow the ${formatCount(r.rowsBefore)} there are.`}
      </p>
      {r.alreadyThere.map(({ variable, count }) => (
        <p key={variable} role="alert">
          {counted(count, "of them has", "of them have")} a {variable} that is there already.
        </p>
      ))}
      {r.nearNames.map(({ known, found }) => (
        <p key={found} role="alert">
          The file calls “{found}” what is “{known}” here; they stay two variables unless you rename it in the file or above.
        </p>
      ))}
      {r.columnsOnlyBefore.length > 0 && (
        <p role={first ? "alert" : undefined}>
          {first ? "Planned, and not in the file" : "Without an answer for the new respondents"}: {listed(r.columnsOnlyBefore)}.
        </p>
      )}
      {r.columnsOnlyNow.length > 0 && (
        <p>
          {first ? "In the file, and not planned" : "New variables, without an answer for the earlier respondents"}:{" "}
          {listed(r.columnsOnlyNow)}.
        </p>
      )}
      {r.wordsNow.length > 0 && <p role="alert">Words where there were numbers: {listed(r.wordsNow)}. They would count as missing.</p>}
    </>
  );
}

/** What a corrected file changes, cell by cell. */
function Differences({ of: d, idle }: { of: ResponseDifferences; idle: number }) {
  return (
    <>
      <p data-testid="differences">
        {counted(d.changedCells, "cell differs", "cells differ")}; {formatCount(d.added.count)} respondents more,{" "}
        {formatCount(d.removed.count)} fewer (matched {d.matchedBy === null ? "row by row" : `by ${d.matchedBy}`}).
      </p>
      {d.columnsAdded.length > 0 && <p>New variables: {listed(d.columnsAdded)}.</p>}
      {d.columnsMissing.length > 0 && <p role="alert">No longer there, and used by nothing: {listed(d.columnsMissing)}.</p>}
      {idle > 0 && (
        <p>
          {counted(idle, "correction by hand no longer applies", "corrections by hand no longer apply")}: the file reads differently there
          now.
        </p>
      )}
      {d.removed.count > 0 && (
        <p>
          Rows no longer there: {listed(d.removed.rows.map(String))}
          {d.removed.count > d.removed.rows.length && " …"}.
        </p>
      )}
      {d.cells.length > 0 && (
        <div className={css.differences} tabIndex={0} role="region" aria-label="Cells that differ">
          <table>
            <thead>
              <tr>
                <th scope="col">Respondent</th>
                <th scope="col">Variable</th>
                <th scope="col">Before</th>
                <th scope="col">Now</th>
              </tr>
            </thead>
            <tbody>
              {d.cells.map((c) => (
                <tr key={`${c.row} ${c.variable}`}>
                  <td>{formatCount(c.row)}</td>
                  <td>{c.variable}</td>
                  <td>{c.from ?? "—"}</td>
                  <td>{c.to ?? "—"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {d.changedCells > d.cells.length && (
        <p className="quiet">
          The first {formatCount(d.cells.length)} are listed; by variable:{" "}
          {listed(d.changedByVariable.slice(0, 12).map((v) => `${v.variable} (${v.count})`))}.
        </p>
      )}
    </>
  );
}
