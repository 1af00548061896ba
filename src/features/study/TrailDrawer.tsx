"use client";

import { Drawer } from "antd";
import { useEffect, useState } from "react";
import { ThemeProvider } from "@/ui/theme/ThemeProvider";
import { touchedBy } from "@/study/kinds/standing";
import { counted } from "@/study/report/format-number";
import { revisionWords, trailLines } from "@/study/report/trail-words";
import { useStudy, useStudyState } from "./study-context";
import type { TrailRevision } from "./study-store";
import css from "./trail.module.css";

/** Every change in order, newest first: when, what, from what to what, and which numbers it touched. */
export default function TrailDrawer({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { store } = useStudy();
  const { revision, unsaved } = useStudyState();
  const [list, setList] = useState<TrailRevision[]>([]);
  const [ended, setEnded] = useState(false);

  useEffect(() => {
    if (!open || unsaved > 0) return;
    let wanted = true;
    void store.trail(null).then((page) => {
      if (!wanted || !page) return;
      setList(page);
      setEnded(page.at(-1)?.revision === 1 || page.length === 0);
    });
    return () => {
      wanted = false;
    };
  }, [open, store, revision, unsaved]);

  const more = async () => {
    const page = await store.trail(list.at(-1)?.revision ?? null);
    if (!page) return;
    setList([...list, ...page]);
    setEnded(page.length === 0 || page.at(-1)!.revision === 1);
  };

  // nothing before a withdrawal can be gone back to: it would bring the answers back
  const barred = list.find((step) => step.how === "withdrawal")?.revision ?? 0;
  return (
    <ThemeProvider>
      <Drawer title="Trail" size={440} open={open} onClose={onClose}>
        <p className={css.lead}>
          Every change to the data, the codebook and everything made of them. The answers as imported are never among them.
        </p>
        <ol className={css.trail} aria-label="Changes, newest first">
          {list.map((step) => (
            <Step key={step.revision} step={step} here={step.revision === revision || step.revision < barred} />
          ))}
        </ol>
        {!ended && list.length > 0 && (
          <button type="button" className="link" onClick={() => void more()}>
            Earlier changes
          </button>
        )}
      </Drawer>
    </ThemeProvider>
  );
}

const SHOWN = 4;

/** @param here nothing is offered to go back to */
function Step({ step, here }: { step: TrailRevision; here: boolean }) {
  const { study, store } = useStudy();
  const [open, setOpen] = useState(false);
  const touched = touchedBy(study, step.changes);
  const results = touched.map(({ kind, name }) => `${kind} ${name}`);
  const lines = trailLines(step.changes);
  const shown = open ? lines : lines.slice(0, SHOWN);
  const heading = revisionWords(step.how, step.of);
  return (
    <li className={step.how === "undo" ? css.back : undefined}>
      <time dateTime={step.when}>
        {step.revision}. {new Date(step.when).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
      </time>
      {heading && <strong>{heading}</strong>}
      <ul>
        {shown.map((line, i) => (
          <li key={i}>{line}.</li>
        ))}
      </ul>
      {lines.length > SHOWN && (
        <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Fewer" : `${lines.length - SHOWN} more`}
        </button>
      )}
      {step.revision > 1 && results.length > 0 && (
        <p className={css.touched} title={results.join(", ")}>
          Touches {results.length <= 3 ? results.join(", ") : counted(results.length, "result")}.
        </p>
      )}
      {!here && (
        <button
          type="button"
          className="link"
          aria-label={`Go back to how it stood after change ${step.revision}`}
          onClick={() => void store.restore(step.revision)}
        >
          Go back to how it stood then
        </button>
      )}
    </li>
  );
}
