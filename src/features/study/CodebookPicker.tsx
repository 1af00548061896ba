"use client";

import { useRef } from "react";

/** A file that describes variables, taken as text. */
export function CodebookPicker(props: { words: string; hint: string; label: string; onText: (text: string) => void }) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <p>
        <button type="button" className="link" onClick={() => picker.current?.click()}>
          {props.words}
        </button>{" "}
        <span className="quiet">CSV, DDI Codebook XML or datapackage.json{props.hint}.</span>
      </p>
      <input
        ref={picker}
        type="file"
        accept=".csv,.tsv,.txt,.xml,.json"
        className="visually-hidden"
        tabIndex={-1}
        aria-label={props.label}
        onChange={(event) => {
          void event.target.files?.[0]?.text().then(props.onText);
          event.target.value = "";
        }}
      />
    </>
  );
}
