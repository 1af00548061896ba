"use client";

import { Input } from "antd";
import { useMemo, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { readCodebookTable } from "@/files/codebook/codebook-table";
import { CodebookReadingNote } from "./CodebookReadingNote";
import css from "./responses.module.css";

/** A block of cells from a spreadsheet becomes rows of the codebook. */
export function PasteBlock({ onClose }: { onClose: () => void }) {
  const { study } = useStudy();
  const [text, setText] = useState("");
  const reading = useMemo(() => (text.trim() === "" ? null : readCodebookTable(text, study.codebook)), [text, study.codebook]);
  return (
    <div className={css.paste}>
      <label htmlFor="paste-block">
        Paste rows from a spreadsheet: name and label, or columns under the headings name, label, short, kind, low, high, values (1=never;
        2=rarely), missing, unit, note.
      </label>
      <Input.TextArea
        id="paste-block"
        autoFocus
        autoSize={{ minRows: 3, maxRows: 8 }}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {reading ? (
        <CodebookReadingNote reading={reading} onDone={onClose} />
      ) : (
        <button type="button" className="link" onClick={onClose}>
          Close
        </button>
      )}
    </div>
  );
}
