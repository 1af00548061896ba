"use client";

import { useEffect, useState } from "react";
import page from "./page.module.css";

/** Code of the page that could not be had, as the bundler calls it. */
const UNFETCHED = "ChunkLoadError";

/**
 * Much of what is pressed fetches its code first: what writes a file, what quotes. Whoever pressed is told when it cannot be had, here for the whole house, so that nothing
 * that is asked for ends in silence.
 */
export function Unfetched() {
  const [told, setTold] = useState(false);
  useEffect(() => {
    const hear = ({ reason }: PromiseRejectionEvent) => {
      if (reason instanceof Error && reason.name === UNFETCHED) setTold(true);
    };
    window.addEventListener("unhandledrejection", hear);
    return () => window.removeEventListener("unhandledrejection", hear);
  }, []);
  if (!told) return null;
  return (
    <div className={`${page.fault} ${page.unfetched}`} role="alert">
      <span>
        What you asked for could not be fetched: Beta Step does not answer. Nothing was changed; ask for it again when it is back.
      </span>
      <button type="button" className="link" onClick={() => setTold(false)}>
        Close
      </button>
    </div>
  );
}
