"use client";

import { useEffect, useRef, useState } from "react";
import { useOpen } from "../use-open";

/** A probe can be folded to its sentence and one line of result; the one that the address names is brought into view. */
export function useFold(id: string) {
  const { probe } = useOpen();
  const [folded, setFolded] = useState(false);
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    if (probe === id) section.current?.scrollIntoView({ block: "start" });
  }, [probe, id]);
  const fold = (
    <button type="button" className="link" aria-expanded={!folded} onClick={() => setFolded(!folded)}>
      {folded ? "Unfold" : "Fold"}
    </button>
  );
  return { folded, fold, section };
}
