"use client";

import { type ReactNode, useState } from "react";
import css from "./page.module.css";

/** The notes at the right of a sheet; they stay in view while the sheet scrolls. Can be folded away. */
export function Margin({ children }: { children: ReactNode }) {
  const [open, setOpen] = useState(true);
  if (!open) {
    return (
      <aside className={css.folded} aria-label="Margin, folded">
        <button type="button" className={css.turned} onClick={() => setOpen(true)}>
          Show the margin
        </button>
      </aside>
    );
  }
  return (
    <aside className={css.margin} aria-label="Margin">
      <div className={css.stay}>
        <button type="button" className={css.fold} onClick={() => setOpen(false)}>
          Fold
        </button>
        {children}
      </div>
    </aside>
  );
}

/** One note of the margin under its heading; nothing when it has nothing to say. */
export function Note({ heading, children }: { heading: string; children: ReactNode }) {
  if (children === null || children === undefined || (Array.isArray(children) && children.length === 0)) return null;
  return (
    <section className={css.note}>
      <h2>{heading}</h2>
      {children}
    </section>
  );
}
