"use client";

import { Button, Input } from "antd";
import { useState } from "react";
import { findRespondent } from "@/features/study/find-respondent";
import { refusalOf } from "@/features/study/refusal";
import { useStudy } from "@/features/study/study-context";
import { z } from "zod";
import { listed } from "@/study/report/format-number";
import css from "./responses.module.css";

/** A respondent takes back the consent: the answers are erased for good, and only that one withdrew is kept. */
export function Withdrawal() {
  const view = useStudy();
  const [typed, setTyped] = useState<string | null>(null);
  const [row, setRow] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** Copies of this study: they keep the respondent. */
  const [others, setOthers] = useState<string[]>([]);
  if (typed === null)
    return (
      <p>
        <button type="button" className="link" onClick={() => setTyped("")}>
          A respondent withdraws
        </button>{" "}
        <span className="quiet">The answers are erased for good, here and in the backups.</span>
      </p>
    );

  const find = async () => {
    setFault(null);
    const found = await findRespondent(view, typed).catch(() => undefined);
    if (found === undefined) return setFault("The server does not answer. Nothing was changed; please try again.");
    setRow(found);
    setOthers(await othersOn(view.store.id).catch(() => []));
    if (found === null) setFault("There is no such respondent.");
  };
  const erase = async () => {
    setBusy(true);
    await view.store.settled();
    const body = JSON.stringify({ revision: view.store.snapshot().revision, row });
    const refused = await refusalOf(fetch(`/api/studies/${view.store.id}/withdraw`, { method: "POST", body }));
    setBusy(false);
    if (refused === null)
      window.location.reload(); // columns and numbers with this respondent are nowhere kept
    else setFault(refused);
  };
  return (
    <form
      className={css.recipe}
      aria-label="A respondent withdraws"
      onSubmit={(event) => {
        event.preventDefault();
        if (!busy) void (row === null ? find() : erase());
      }}
    >
      <p>
        <label>
          Respondent who withdraws:{" "}
          <Input
            size="small"
            autoFocus
            placeholder="code or row"
            value={typed}
            style={{ width: 140 }}
            onChange={(event) => {
              setTyped(event.target.value);
              setRow(null);
            }}
          />
        </label>
      </p>
      {row !== null && (
        <p role="alert">
          Row {row} of {view.dataset.rows} is erased: the answers, corrections of them, and what the trail says of answers. Study and trail
          say that one withdrew, not who. Nothing before can be gone back to, and backups lose this study until the next one. This cannot be
          taken back.
          {others.length > 0 &&
            ` ${listed(others.map((name) => `“${name}”`))} ${others.length === 1 ? "stands" : "stand"} on the same responses: the respondent withdraws there as well, before no answer is left.`}
        </p>
      )}
      {fault && <p role="alert">{fault}</p>}
      <div className={css.ways}>
        {row === null ? (
          <Button size="small" htmlType="submit" disabled={typed.trim() === ""}>
            Find
          </Button>
        ) : (
          <Button size="small" danger htmlType="submit" loading={busy}>
            Erase this respondent for good
          </Button>
        )}
        <button type="button" className="link" onClick={() => setTyped(null)}>
          Leave it
        </button>
      </div>
    </form>
  );
}

async function othersOn(id: string): Promise<string[]> {
  const response = await fetch(`/api/studies/${id}/withdraw`);
  return response.ok ? z.array(z.string()).parse(await response.json()) : [];
}
