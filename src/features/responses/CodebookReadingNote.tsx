"use client";

import { Button } from "antd";
import { useStudy } from "@/features/study/study-context";
import type { CodebookReading } from "@/files/codebook/codebook-table";
import type { Variable } from "@/study/model/variable";
import { counted, listed } from "@/study/report/format-number";
import css from "./responses.module.css";

/** What a pasted or opened codebook would change, before it does. */
export function CodebookReadingNote({ reading, onDone }: { reading: CodebookReading; onDone: () => void }) {
  const { study, store } = useStudy();
  const changes = reading.variables.flatMap((to) => {
    const from = study.codebook.find((v) => v.name === to.name)!;
    const fields = (Object.keys(to) as (keyof Variable)[]).filter((key) => JSON.stringify(from[key]) !== JSON.stringify(to[key]));
    return fields.length === 0 ? [] : [{ to, fields }];
  });
  const few = (names: readonly string[]) => listed(names.slice(0, 6)) + (names.length > 6 ? ` and ${names.length - 6} more` : "");
  return (
    <div className={css.reading} role="status">
      {changes.length === 0 ? (
        <p>Nothing in it differs from the codebook.</p>
      ) : (
        <p>
          It changes {counted(changes.length, "variable")}: {few(changes.map(({ to, fields }) => `${to.name} (${fields.join(", ")})`))}.
        </p>
      )}
      {reading.unknown.length > 0 && <p>Not in this study, and left out: {few(reading.unknown)}.</p>}
      {reading.ignored.length > 0 && <p>Headings without a meaning here: {few(reading.ignored)}.</p>}
      {reading.faults.map((fault) => (
        <p key={fault} role="alert">
          {fault}
        </p>
      ))}
      <div className={css.ways}>
        {changes.length > 0 && (
          <Button
            type="primary"
            size="small"
            onClick={() => {
              if (store.edit(...changes.map(({ to }) => ({ subject: "variable" as const, id: to.name, to })))) onDone();
            }}
          >
            Take {changes.length === 1 ? "this change" : `these ${changes.length} changes`}
          </Button>
        )}
        <button type="button" className="link" onClick={onDone}>
          Leave the codebook as it is
        </button>
      </div>
    </div>
  );
}
