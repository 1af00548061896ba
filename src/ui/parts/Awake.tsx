"use client";

import { useEffect } from "react";

/** Told to the document once the page hears what is done on it. */
export const AWAKE = "beta-step-awake";

/**
 * Keeps clicks that come before the page has woken up, and does them then: what is drawn can be clicked, and a click that nothing hears would be lost. Runs as
 * a script of the page itself, before anything else is loaded.
 */
const KEEP_CLICKS = `(() => {
  const kept = [];
  const keep = (event) => {
    const button = event.target instanceof Element && event.target.closest("button, [role=button], summary");
    if (!button) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    kept.push(button);
  };
  document.addEventListener("click", keep, true);
  document.addEventListener("${AWAKE}", () => {
    document.removeEventListener("click", keep, true);
    for (const button of kept) if (button.isConnected) button.click();
  }, { once: true });
})();`;

/** The script that keeps early clicks. @param nonce of the page's content security policy */
export function KeepEarlyClicks({ nonce }: { nonce: string | undefined }) {
  return <script nonce={nonce} dangerouslySetInnerHTML={{ __html: KEEP_CLICKS }} suppressHydrationWarning />;
}

/**
 * Stands last on the page: when it is there, all of it is. A moment later, since effects of the parts around it run after its own: the router hears of a new
 * address only from then on.
 */
export function Awake() {
  useEffect(() => {
    const timer = setTimeout(() => document.dispatchEvent(new Event(AWAKE)));
    return () => clearTimeout(timer);
  }, []);
  return null;
}
