"use client";

import { useRef, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { StudyFileKind } from "@/files/study-file/manifest";
import type { Source } from "@/study/report/document/source";
import { counted } from "@/study/report/format-number";
import { fileName, saveBlob } from "@/ui/parts/save-file";
import { SettingWord } from "@/ui/parts/SettingWord";
import css from "./write-up.module.css";

const KINDS: Readonly<Record<StudyFileKind, string>> = {
  whole: "with everything",
  "without-respondents": "without respondents",
  shuffled: "with shuffled codes",
};

/** The whole study as one file, or a copy of it that can be given away. */
export function StudyFileOut({ source, ready }: { source: Source; ready: boolean }) {
  const house = useStudy();
  const { study, dataset } = house;
  const [kind, setKind] = useState<StudyFileKind>("whole");
  const [left, setLeft] = useState<ReadonlySet<string> | null>(null);
  const [working, setWorking] = useState<{ words: string; share: number | null } | null>(null);
  const [said, setSaid] = useState("");
  const stop = useRef<AbortController | null>(null);
  // codes and free text stay at home unless somebody wants them along
  const away = left ?? new Set(study.codebook.filter((v) => v.kind === "code" || v.kind === "text").map((v) => v.name));
  const save = async () => {
    const signal = (stop.current = new AbortController()).signal;
    setSaid("");
    try {
      const { studyFile } = await import("./study-file");
      const chosen = dataset.columns.filter((name) => !away.has(name));
      const { blob, leftOut } = await studyFile(kind, house, source, chosen, (words, share) => setWorking({ words, share }), signal);
      saveBlob(fileName(`${study.name} ${kind === "whole" ? "study" : kind}`, "zip"), blob);
      setSaid(leftOut.length === 0 ? "Saved." : `Saved. Not in it, since what they need was not chosen: ${leftOut.slice(0, 6).join(", ")}${leftOut.length > 6 ? ` and ${counted(leftOut.length - 6, "more")}` : ""}.`); // prettier-ignore
    } catch {
      setSaid(signal.aborted ? "Stopped. Nothing was saved." : "The study file could not be made. Nothing was changed.");
    } finally {
      setWorking(null);
    }
  };
  const toggle = (name: string) => {
    const next = new Set(away);
    if (!next.delete(name)) next.add(name);
    setLeft(next);
  };
  return (
    <div className={css.ways}>
      <span>
        <button type="button" className="link" disabled={!ready || working !== null} onClick={() => void save()}>
          Save the study file
        </button>{" "}
        <SettingWord
          label="What the study file holds"
          value={kind}
          text={KINDS[kind]}
          choices={[
            { value: "whole", label: "with everything: answers, study, results, trail, text" },
            { value: "without-respondents", label: "without respondents: codebook, study, results, and what refits each ladder" },
            { value: "shuffled", label: "with shuffled codes: chosen variables, respondents in another order" },
          ]}
          onChange={(value) => setKind(value as StudyFileKind)}
        />
      </span>
      {kind === "shuffled" && (
        <details>
          <summary>
            {counted(dataset.columns.length - [...away].filter((name) => dataset.columns.includes(name)).length, "variable")} of{" "}
            {dataset.columns.length} go along
          </summary>
          <div className={css.columns}>
            {dataset.columns.map((name) => (
              <label key={name}>
                <input type="checkbox" checked={!away.has(name)} onChange={() => toggle(name)} /> {name}
              </label>
            ))}
          </div>
        </details>
      )}
      {working && (
        <span role="status">
          {working.words} {working.share !== null && `${Math.round(100 * working.share)} % `}
          <button type="button" className="link" onClick={() => stop.current?.abort()}>
            Stop
          </button>
        </span>
      )}
      <span role="status" className="quiet">
        {said}
      </span>
    </div>
  );
}
