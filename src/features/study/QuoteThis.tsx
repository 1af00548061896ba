"use client";

import { useState } from "react";
import type { BlockContent } from "@/study/model/block";
import { newId } from "@/study/model/new-id";
import type { Source } from "@/study/report/document/source";
import { useStudy } from "./study-context";

/** What is quoted: a composed paragraph, or a number by its name in the list of all that can be put into prose. */
export type Quoted = { paragraph: { kind: string; id: string } } | { number: string };

/**
 * Puts a number or a paragraph into the write-up, where it stays bound to what it is of.
 * @param props.part the results it is read from
 */
export function QuoteThis(props: { of: Quoted; part: Partial<Source>; words?: string }) {
  const { study, store, title } = useStudy();
  const [said, setSaid] = useState("");
  const quote = async () => {
    const { quoted } = await import("@/study/report/document/quote");
    const what = quoted(props.of, { study, title, ...props.part });
    if (!what) return setSaid("There is nothing to quote yet.");
    const id = newId("quoted", study.blocks.map((b) => b.id)); // prettier-ignore
    if (store.edit({ subject: "block", id, to: { id, what: what as BlockContent, at: new Date().toISOString() } }))
      setSaid("It stands at the end of the write-up.");
  };
  return (
    <span style={{ marginRight: 14 }}>
      <button type="button" className="link" onClick={() => void quote()}>
        {props.words ?? "Quote this"}
      </button>{" "}
      <span role="status" className="quiet">
        {said}
      </span>
    </span>
  );
}
