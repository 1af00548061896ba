"use client";

import { useState } from "react";
import { newId } from "@/features/study/new-id";
import { useStudy } from "@/features/study/study-context";
import { useOutdated } from "@/features/study/use-seen";
import { Ladder } from "@/study/model/ladder";
import { counted } from "@/study/report/format-number";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import { LadderSheet } from "./LadderSheet";
import css from "./ladders.module.css";

/** The study's ladders on their shelf, and the one that is open. */
export function LadderScreen() {
  const { study, store } = useStudy();
  const outdated = useOutdated();
  const [openId, setOpenId] = useState<string | null>(null);
  const open = study.ladders.find((l) => l.id === openId) ?? study.ladders[0] ?? null;

  const create = () => {
    const name = study.ladders.length === 0 ? "First ladder" : `Ladder ${study.ladders.length + 1}`;
    const id = newId(
      name,
      study.ladders.map((l) => l.id),
    );
    const step = (k: number) => ({ id: `step_${k}`, name: "", terms: [] });
    store.edit({
      subject: "ladder",
      id,
      to: Ladder.parse({ id, name, steps: [step(1), step(2)] }),
    });
    setOpenId(id);
  };

  return (
    <div className={page.page}>
      <nav className={page.side} aria-label="Ladders in this study">
        <p className={css.shelfHead}>Ladders in this study</p>
        <ul className={css.shelf}>
          {study.ladders.map((ladder) => (
            <li key={ladder.id}>
              <button
                type="button"
                className={css.ladder}
                aria-current={ladder === open ? "true" : undefined}
                onClick={() => setOpenId(ladder.id)}
              >
                {ladder.name}
                <small>{counted(ladder.steps.length, "step")}</small>
                {outdated.has(ladder.id) && ladder !== open && (
                  <small className={page.stale}>out of date: open it to see what changed</small>
                )}
              </button>
            </li>
          ))}
        </ul>
        <button type="button" className="link" onClick={create}>
          + New ladder
        </button>
        {open && (
          <div className={css.foot}>
            <FieldWord
              label="Name of this ladder"
              text="Rename"
              initial={open.name}
              className="link"
              width={146}
              read={(typed) => (typed.trim() === "" || typed.length > 200 ? null : typed.trim())}
              rule="A name, please."
              onChange={(name) => store.edit({ subject: "ladder", id: open.id, to: { ...open, name } })}
            />{" "}
            or{" "}
            <button type="button" className="link" onClick={() => store.edit({ subject: "ladder", id: open.id, to: null })}>
              remove
            </button>{" "}
            this ladder
          </div>
        )}
      </nav>
      {open ? (
        <LadderSheet key={open.id} ladder={open} />
      ) : (
        <main className={page.sheet}>
          <h1 className={page.sentence}>Predict an outcome in steps: what you know already first, what your theory adds next.</h1>
          <p className={css.empty}>
            A ladder shows how far each step raises the explained variance, on the same respondents throughout.{" "}
            <button type="button" className="link" onClick={create}>
              Begin a ladder
            </button>
          </p>
        </main>
      )}
    </div>
  );
}
