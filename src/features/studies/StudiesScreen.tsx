"use client";

import { Button } from "antd";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { type DragEvent, useRef, useState } from "react";
import { formatCount } from "@/study/report/format-number";
import { Masthead } from "@/ui/parts/Masthead";
import css from "./studies.module.css";
import { uploadFile } from "./upload-file";

/** The way in: drop a file to begin a study, or go on with one. */
export function StudiesScreen({ studies }: { studies: { id: string; name: string; rows: number; updatedAt: string }[] }) {
  const router = useRouter();
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
    const upload = await uploadFile(file, (share) => setSending({ name: file.name, share }), stop.current.signal);
    if (upload.status === "created") return router.push(`/studies/${upload.id}/responses`);
    setSending(null);
    if (upload.status === "refused") setMessage(`${file.name} was not taken in. ${upload.message}`);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void take(event.dataTransfer.files[0]);
  };

  return (
    <>
      <Masthead />
      <main className={css.home}>
        <h1>From questionnaire answers to tested theory, one step at a time.</h1>
        <div
          className={`${css.drop} ${over ? css.over : ""}`}
          data-testid="drop"
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
                {sending.share < 1 ? `Sending ${sending.name}: ${Math.round(sending.share * 100)} %` : `Reading ${sending.name} …`}
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
              Drop a CSV file here to begin a study, or{" "}
              <Button type="primary" onClick={() => picker.current?.click()}>
                choose a file
              </Button>
              <small>
                One row a respondent, variable names in the first line; comma, semicolon or tab; UTF-8. The file stays on this machine.
              </small>
            </>
          )}
          <input
            ref={picker}
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            className="visually-hidden"
            tabIndex={-1}
            aria-label="CSV file"
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
        {studies.length > 0 && (
          <table className={css.table}>
            <caption className="visually-hidden">Studies on this machine</caption>
            <thead>
              <tr>
                <th scope="col">Study</th>
                <th scope="col" className={css.number}>
                  Respondents
                </th>
                <th scope="col">Last change (UTC)</th>
              </tr>
            </thead>
            <tbody>
              {studies.map((study) => (
                <tr key={study.id}>
                  <th scope="row">
                    <Link href={`/studies/${study.id}/ladders`}>{study.name}</Link>
                  </th>
                  <td className={css.number}>{formatCount(study.rows)}</td>
                  <td className="quiet">{study.updatedAt.slice(0, 16)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </main>
    </>
  );
}
