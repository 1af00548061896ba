"use client";

import { Button } from "antd";
import { useRef, useState } from "react";
import { formatCount } from "@/study/report/format-number";
import { type ArrivedStudyFile, discard, takeFile } from "./upload-client";
import css from "./upload.module.css";

/** A study file that has arrived: what it holds, and whether it is opened here. Nothing is kept until it is. */
export function ArrivedStudy(props: { file: ArrivedStudyFile; onOpened: (id: string) => void; onClose: () => void }) {
  const { file } = props;
  const [rows, setRows] = useState<number | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  const open = async () => {
    stop.current = new AbortController();
    setRefused(null);
    setRows(0);
    const taken = await takeFile(file.id, null, { kind: "study-file" }, setRows, stop.current.signal);
    setRows(null);
    if (taken.status === "refused") setRefused(taken.message);
    else if (taken.status === "study") props.onOpened(taken.id);
  };
  const close = () => {
    discard(file.id);
    props.onClose();
  };
  return (
    <section className={css.arrived} aria-label={`The study in ${file.name}`}>
      <h1>{file.studyFile.name}</h1>
      {file.studyFile.said.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      {refused !== null && (
        <p role="alert" className={css.fault}>
          {refused}
        </p>
      )}
      <p>
        {rows === null ? (
          <Button type="primary" onClick={() => void open()}>
            Open the study
          </Button>
        ) : (
          <>
            <span role="status">Reading: {formatCount(rows)} respondents so far … </span>
            <button type="button" className="link" onClick={() => stop.current?.abort()}>
              Stop
            </button>
          </>
        )}{" "}
        <button type="button" className="link" onClick={close}>
          Not this file
        </button>
      </p>
    </section>
  );
}
