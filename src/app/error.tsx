"use client";

import page from "@/ui/parts/page.module.css";

/** What stands in place of a screen that broke: what happened, what was kept, what to do. */
export default function ScreenFault({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className={page.sheet} role="alert">
      <h1 className={page.sentence}>This page could not be shown.</h1>
      <p>
        Everything that was saved is safe.{" "}
        <button type="button" className="link" onClick={reset}>
          Try again
        </button>
      </p>
    </main>
  );
}
