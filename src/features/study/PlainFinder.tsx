import { useLayoutEffect, useRef } from "react";
import type { Meanwhile } from "@/ui/parts/later";
import css from "./finder.module.css";

export interface FinderProps {
  onClose: () => void;
  onShortcuts: () => void;
  onTrail: () => void;
}

/** Ends what was typed when Enter was pressed on it: the finder then does what it comes first to. */
export const ENTERED = "\n";

/** The finder until its own code has come. */
export function PlainFinder({ typed = "", onType, away, onClose }: FinderProps & Meanwhile) {
  const dialog = useRef<HTMLDialogElement>(null);
  const written = typed.replace(ENTERED, "");
  useLayoutEffect(() => dialog.current?.showModal(), []);
  return (
    <dialog ref={dialog} className={css.finder} aria-label="Finder" onClose={onClose}>
      <input
        aria-label="Find"
        autoFocus
        value={written}
        onChange={(event) => onType(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && onType(`${written}${ENTERED}`)}
      />
      {away && (
        <p role="status" className={css.away}>
          Beta Step does not answer, so nothing can be found just now.
        </p>
      )}
    </dialog>
  );
}
