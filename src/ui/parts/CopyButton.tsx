"use client";

import { useState } from "react";

/** Copies a text; says so for a moment, or that the browser does not let it. */
export function CopyButton({ text, label = "Copy" }: { text: string; label?: string }) {
  const [state, setState] = useState<"idle" | "copied" | "refused">("idle");
  const copy = () => {
    navigator.clipboard.writeText(text).then(
      () => setState("copied"),
      () => setState("refused"),
    );
    setTimeout(() => setState("idle"), 2500);
  };
  return (
    <>
      <button type="button" className="link" onClick={copy}>
        {label}
      </button>
      <span role="status">
        {state === "copied" ? " Copied." : state === "refused" ? " The browser does not let it be copied: mark the text and copy it." : ""}
      </span>
    </>
  );
}
