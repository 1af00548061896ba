"use client";

import { useState } from "react";
import { CodebookPicker } from "@/features/study/CodebookPicker";
import { useStudy } from "@/features/study/study-context";
import { type CodebookReading, codebookCsv } from "@/files/codebook/codebook-table";
import { readCodebook } from "@/files/codebook/read-codebook";
import { saveFile } from "@/ui/parts/save-file";
import { CodebookReadingNote } from "./CodebookReadingNote";
import css from "./responses.module.css";

/** The codebook saved as, or taken from, open formats. */
export function CodebookFiles() {
  const { study, store, dataset } = useStudy();
  const [reading, setReading] = useState<CodebookReading | null>(null);

  const open = async (text: string) => setReading(await readCodebook(text, study.codebook));
  const saveDdi = async () => {
    const { ddiCodebook } = await import("@/files/codebook/ddi-codebook");
    saveFile("codebook.xml", "application/xml", ddiCodebook({ title: study.name, rows: dataset.rows }, study.codebook));
  };
  const saveDescriptor = async () => {
    const { packageDescriptor } = await import("@/files/codebook/write-package");
    saveFile("datapackage.json", "application/json", JSON.stringify(packageDescriptor(study.name, study.codebook), null, 1));
  };
  return (
    <div className={css.files}>
      <p>
        Save the codebook as{" "}
        <button type="button" className="link" onClick={() => saveFile("codebook.csv", "text/csv", codebookCsv(study.codebook))}>
          CSV
        </button>
        ,{" "}
        <button type="button" className="link" onClick={() => void saveDdi()}>
          DDI Codebook 2.5 (XML)
        </button>{" "}
        or{" "}
        <button type="button" className="link" onClick={() => void saveDescriptor()}>
          data package description (JSON)
        </button>
        ; or save answers and codebook together as a{" "}
        <a href={`/api/studies/${store.id}/package`} download>
          data package (ZIP)
        </a>
        .
      </p>
      <CodebookPicker
        words="Take a codebook from a file"
        hint="; you see what it changes first"
        label="Codebook file"
        onText={(text) => void open(text)}
      />
      {reading && <CodebookReadingNote reading={reading} onDone={() => setReading(null)} />}
    </div>
  );
}
