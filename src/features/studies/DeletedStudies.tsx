"use client";

import { Button, Input } from "antd";
import { useState } from "react";
import css from "./studies.module.css";
import type { StudyEnd } from "./use-study-end";

export interface DeletedStudy {
  id: string;
  name: string;
  deletedAt: string;
}

type End = (id: string, how: StudyEnd) => Promise<void>;

/** Studies that were deleted: until when each can be taken back, and the way to erase one for good. */
export function DeletedStudies({ studies, days, end }: { studies: readonly DeletedStudy[]; days: number; end: End }) {
  const [erasing, setErasing] = useState<string | null>(null);
  if (studies.length === 0) return null;
  return (
    <section className={css.deleted} aria-labelledby="deleted-studies">
      <h2 id="deleted-studies">Deleted</h2>
      <ul>
        {studies.map((study) => (
          <li key={study.id}>
            {study.name} <span className="quiet">is erased on {lastDay(study.deletedAt, days)} by itself.</span>{" "}
            <button type="button" className="link" aria-label={`Take ${study.name} back`} onClick={() => void end(study.id, "take-back")}>
              Take back
            </button>{" "}
            <button
              type="button"
              className="link"
              aria-label={`Erase ${study.name} for good now`}
              aria-expanded={erasing === study.id}
              onClick={() => setErasing(erasing === study.id ? null : study.id)}
            >
              Erase for good now
            </button>
            {erasing === study.id && <Erase study={study} end={end} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

function lastDay(deletedAt: string, days: number): string {
  return new Date(Date.parse(deletedAt) + days * 24 * 3600_000).toISOString().slice(0, 10);
}

/** Cannot be taken back: the name is typed first. */
function Erase({ study, end }: { study: DeletedStudy; end: End }) {
  const [typed, setTyped] = useState("");
  const [busy, setBusy] = useState(false);
  const erase = async () => {
    setBusy(true);
    await end(study.id, { erase: typed });
    setBusy(false);
  };
  return (
    <form
      className={css.erase}
      onSubmit={(event) => {
        event.preventDefault();
        void erase();
      }}
    >
      <p>
        No answer of it stays: not in the database, not in its backups, not among the uploads. Copies of the file elsewhere are yours. This
        cannot be taken back.
      </p>
      <label>
        Its name, to be sure:{" "}
        <Input size="small" autoFocus value={typed} onChange={(event) => setTyped(event.target.value)} style={{ width: 260 }} />
      </label>{" "}
      <Button size="small" danger htmlType="submit" loading={busy} disabled={typed.trim() !== study.name}>
        Erase for good
      </Button>
    </form>
  );
}
