"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { cellText } from "@/study/model/response-column";
import { useStudy } from "./study-context";
import css from "./trail.module.css";

/** Jumps to a respondent from anywhere: by the code in a variable of respondent codes, or by the row. */
export function GoToRespondent() {
  const { store, study, dataset, columns } = useStudy();
  const router = useRouter();
  const [times, setTimes] = useState(0);
  const [typed, setTyped] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const go = async () => {
    const wanted = typed.trim();
    if (wanted === "") return;
    const row = (await byCode(wanted)) ?? rowOf(wanted);
    if (row === null) return setMessage("no such respondent");
    setMessage(null);
    setTimes(times + 1); // asking for the same one again is asking
    router.push(`/studies/${store.id}/responses?respondent=${row}-${times + 1}`);
  };
  /** Row, from 1, of the first respondent with this code. */
  const byCode = async (wanted: string): Promise<number | null> => {
    const codes = study.codebook.filter((v) => v.kind === "code" && dataset.columns.includes(v.name)).map((v) => v.name);
    try {
      for (const column of await columns.columns(codes)) {
        for (let row = 0; row < column.values.length; row++)
          if (cellText(column, row)?.toLowerCase() === wanted.toLowerCase()) return row + 1;
      }
    } catch {
      setMessage("the server does not answer");
    }
    return null;
  };
  const rowOf = (wanted: string): number | null => {
    const row = Number(wanted);
    return Number.isInteger(row) && row >= 1 && row <= dataset.rows ? row : null;
  };
  return (
    <form
      className={css.go}
      onSubmit={(event) => {
        event.preventDefault();
        void go();
      }}
    >
      <label htmlFor="go-to-respondent">Go to respondent</label>
      <input id="go-to-respondent" placeholder="code or row" value={typed} onChange={(event) => setTyped(event.target.value)} />
      {message && <span role="alert">{message}</span>}
    </form>
  );
}
