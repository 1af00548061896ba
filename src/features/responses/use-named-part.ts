"use client";

import { useEffect } from "react";

/**
 * What a person does that may mean another place of the page than the one in sight. A pointer that is pressed has done it when it is let go: until then what it
 * presses must not move away below it, or the click would be lost.
 */
const DONE = ["wheel", "touchmove", "pointerup", "pointercancel", "keydown"] as const;

/**
 * Brings the part of the page that its address names into sight, and keeps it there while what stands above it still grows, until something else is done.
 * @param drawn whether the parts that can be named are there
 */
export function useNamedPart(drawn: boolean): void {
  useEffect(() => {
    if (!drawn) return;
    let named: Element | null = null;
    const show = () => named?.scrollIntoView();
    const grown = new ResizeObserver(show);
    const leave = () => {
      named = null;
      grown.disconnect();
    };
    const lead = () => {
      leave();
      named = document.getElementById(window.location.hash.slice(1));
      const page = named?.closest("main");
      if (page) grown.observe(page); // it tells at once how large it is, so it is shown now
    };
    lead();
    window.addEventListener("hashchange", lead);
    for (const type of DONE) window.addEventListener(type, leave, { passive: true, capture: true });
    return () => {
      leave();
      window.removeEventListener("hashchange", lead);
      for (const type of DONE) window.removeEventListener(type, leave, { capture: true });
    };
  }, [drawn]);
}
