"use client";

import { useEffect, useRef, useState } from "react";

/** So many lines are drawn at first, and as many again each time the end comes into view. */
const BY = 40;

/**
 * A long list drawn as far as it has been seen: a thousand lines at once would hold up the page for seconds.
 * @param all how many lines there are
 * @param atLeast how many must be drawn in any case, such as those up to the chosen one
 */
export function useGrowing(all: number, atLeast = 0): { shown: number; end: React.ReactNode } {
  const [grown, setGrown] = useState(BY);
  const shown = Math.min(all, Math.max(grown, atLeast));
  return { shown, end: shown < all ? <End key={shown} onSeen={() => setGrown(shown + BY)} /> : null };
}

function End({ onSeen }: { onSeen: () => void }) {
  const mark = useRef<HTMLSpanElement>(null);
  const seen = useRef(onSeen);
  useEffect(() => {
    const observer = new IntersectionObserver((entries) => entries.some((entry) => entry.isIntersecting) && seen.current(), {
      rootMargin: "400px",
    });
    observer.observe(mark.current!);
    return () => observer.disconnect();
  }, []);
  return <span ref={mark}>…</span>;
}
