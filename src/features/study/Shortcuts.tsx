"use client";

import { useEffect, useRef } from "react";
import css from "./finder.module.css";
import { SHORTCUTS } from "./shortcut-list";

/** Every shortcut, by where it is heard. */
export default function Shortcuts({ onClose }: { onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return (
    <dialog ref={dialog} className={css.shortcuts} aria-label="Shortcuts" onClose={onClose}>
      <h2>Shortcuts</h2>
      {SHORTCUTS.map(([where, keys]) => (
        <section key={where}>
          <h3>{where}</h3>
          <dl>
            {keys.map((one) => (
              <div key={one.keys}>
                <dt>{one.keys}</dt>
                <dd>{one.words}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      <p className="quiet">On a Mac, Ctrl is the command key.</p>
      <form method="dialog">
        <button type="submit" className="link">
          Close
        </button>
      </form>
    </dialog>
  );
}
