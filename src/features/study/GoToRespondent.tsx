"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { findRespondent } from "./find-respondent";
import { useStudy } from "./study-context";
import css from "./trail.module.css";

/** Jumps to a respondent from anywhere: by the code in a variable of respondent codes, or by the row. */
export function GoToRespondent() {
  const view = useStudy();
  const router = useRouter();
  const [times, setTimes] = useState(0);
  const [typed, setTyped] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  const go = async () => {
    const wanted = typed.trim();
    if (wanted === "") return;
    const row = await findRespondent(view, wanted).catch(() => undefined);
    if (row === undefined) return setMessage("the server does not answer");
    if (row === null) return setMessage("no such respondent");
    setMessage(null);
    setTimes(times + 1); // asking for the same one again is asking
    router.push(`/studies/${view.store.id}/responses?respondent=${row}-${times + 1}`);
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
