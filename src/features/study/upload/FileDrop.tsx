"use client";

import { Button } from "antd";
import { type DragEvent, type ReactNode, useRef, useState } from "react";
import { type Arrived, type ArrivedStudyFile, discard, sendFile } from "./upload-client";
import css from "./upload.module.css";

const ACCEPT = ".csv,.tsv,.txt,.xlsx,.ods,.json,.jsonl,.zip,text/csv";

/** Where a file is dropped or chosen; it is sent and looked at, and nothing else. */
export function FileDrop({
  words,
  hint,
  small,
  onArrived,
  onStudyFile,
}: {
  words: ReactNode;
  hint: ReactNode;
  small?: boolean;
  onArrived: (file: Arrived) => void;
  /** Where a whole study can be opened; left out where it cannot. */
  onStudyFile?: (file: ArrivedStudyFile) => void;
}) {
  const [over, setOver] = useState(false);
  const [sending, setSending] = useState<{ name: string; share: number } | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  const stop = useRef<AbortController | null>(null);

  const take = async (file: File | undefined) => {
    if (!file || sending) return;
    setMessage(null);
    setSending({ name: file.name, share: 0 });
    stop.current = new AbortController();
    const sent = await sendFile(file, (share) => setSending({ name: file.name, share }), stop.current.signal);
    setSending(null);
    if (sent.status === "arrived") onArrived(sent.file);
    if (sent.status === "study-file") {
      if (onStudyFile) onStudyFile(sent.file);
      else {
        discard(sent.file.id);
        setMessage(`${file.name} is a study file: open it from the list of studies.`);
      }
    }
    if (sent.status === "refused") setMessage(`${file.name} was not taken in. ${sent.message}`);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void take(event.dataTransfer.files[0]);
  };

  return (
    <>
      <div
        className={`${css.drop} ${small ? css.small : ""} ${over ? css.over : ""}`}
        data-testid="drop"
        data-takes="files"
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
      >
        {sending ? (
          <>
            <span role="status">
              {sending.share < 1 ? `Sending ${sending.name}: ${Math.round(sending.share * 100)} %` : `Looking at ${sending.name} …`}
            </span>
            <div className={css.progress}>
              <div style={{ width: `${sending.share * 100}%` }} />
            </div>
            <small>
              <button type="button" className="link" onClick={() => stop.current?.abort()}>
                Stop
              </button>
            </small>
          </>
        ) : (
          <>
            {words}{" "}
            <Button type={small ? "default" : "primary"} size={small ? "small" : "middle"} onClick={() => picker.current?.click()}>
              choose a file
            </Button>
            <small>{hint}</small>
          </>
        )}
        <input
          ref={picker}
          type="file"
          accept={ACCEPT}
          className="visually-hidden"
          tabIndex={-1}
          aria-label="File of answers"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </div>
      {message && (
        <p className={css.message} role="alert">
          {message}
        </p>
      )}
    </>
  );
}
