"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useRemembered } from "@/features/study/use-remembered";
import type { DocxOptions, PageSize } from "@/files/manuscript-docx";
import type { Manuscript } from "@/study/report/document/manuscript";
import { counted } from "@/study/report/format-number";
import { fileName, saveBlob, saveFile } from "@/ui/parts/save-file";
import { SettingWord } from "@/ui/parts/SettingWord";
import { drawnFigures, printedPictures } from "./drawn-figures";
import css from "./write-up.module.css";

const PAPER: Readonly<Record<PageSize, string>> = { A4: "A4", Letter: "US Letter" };
const LANGUAGES = { "en-GB": "English (UK)", "en-US": "English (US)", "de-DE": "German", "fr-FR": "French", "es-ES": "Spanish", "nl-NL": "Dutch", "it-IT": "Italian", "pt-PT": "Portuguese", "pl-PL": "Polish", "sv-SE": "Swedish" } as const; // prettier-ignore
const FIRST: DocxOptions = { page: "A4", language: "en-GB" };

function readOptions(kept: unknown): DocxOptions | null {
  const { page, language } = (kept ?? {}) as Partial<DocxOptions>;
  return (page === "A4" || page === "Letter") && typeof language === "string" && language in LANGUAGES ? { page, language } : null;
}

type Kind = "docx" | "html" | "md";

/** The ways of a manuscript into a file. */
export function DocumentsOut(props: { manuscript: () => Manuscript; ready: boolean; stale: number }) {
  const { study } = useStudy();
  const [options, setOptions] = useRemembered<DocxOptions>("document", readOptions, FIRST);
  const [said, setSaid] = useState("");
  const [working, setWorking] = useState(false);
  const save = async (how: Kind) => {
    setWorking(true);
    setSaid(how === "docx" ? "Setting the document …" : "");
    try {
      const manuscript = props.manuscript();
      const name = fileName(study.name, how);
      if (how === "md") saveFile(name, "text/markdown", (await import("@/files/manuscript-markdown")).manuscriptMarkdown(manuscript));
      else if (how === "html") {
        const [{ manuscriptHtml }, figures] = await Promise.all([import("@/files/manuscript-html"), drawnFigures(manuscript)]);
        saveFile(name, "text/html", manuscriptHtml(manuscript, figures, options.language));
      } else {
        const [{ manuscriptDocx }, figures] = await Promise.all([import("@/files/manuscript-docx"), printedPictures(manuscript)]);
        const bytes = await manuscriptDocx(manuscript, figures, options);
        saveBlob(name, new Blob([bytes as BlobPart], { type: "application/vnd.openxmlformats-officedocument.wordprocessingml.document" }));
      }
      setSaid(props.stale > 0 ? `Saved as it stands, with ${counted(props.stale, "block")} out of date.` : "Saved.");
    } catch {
      setSaid("The document could not be made. Nothing was changed.");
    } finally {
      setWorking(false);
    }
  };
  const button = (words: string, act: () => void) => (
    <button type="button" className="link" disabled={!props.ready || working} onClick={act}>
      {words}
    </button>
  );
  return (
    <p className={css.ways}>
      <span>
        {button("Save as DOCX", () => void save("docx"))} on{" "}
        <SettingWord
          label="Paper"
          value={options.page}
          text={PAPER[options.page]}
          choices={Object.entries(PAPER).map(([value, label]) => ({ value, label }))}
          onChange={(page) => setOptions({ ...options, page: page as PageSize })}
        />{" "}
        in{" "}
        <SettingWord
          label="Language of the document"
          value={options.language}
          text={LANGUAGES[options.language as keyof typeof LANGUAGES]}
          choices={Object.entries(LANGUAGES).map(([value, label]) => ({ value, label }))}
          onChange={(language) => setOptions({ ...options, language })}
        />
      </span>
      {button("Save as HTML", () => void save("html"))}
      {button("Save as Markdown", () => void save("md"))}
      {button("Print", () => window.print())}
      <span role="status" className="quiet">
        {said}
      </span>
    </p>
  );
}
