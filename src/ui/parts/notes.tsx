import type { ReactNode } from "react";
import type { Words } from "@/study/report/words";
import { CopyButton } from "./CopyButton";
import { Note } from "./Margin";
import page from "./page.module.css";
import { Said } from "./Said";

/** Sentences of a report under a heading of the margin. */
export function SentencesNote({ heading, sentences, children }: { heading: string; sentences: readonly Words[]; children?: ReactNode }) {
  return (
    <Note heading={heading}>
      {sentences.map((sentence, i) => (
        <p key={i}>
          <Said>{sentence}</Said>
        </p>
      ))}
      {children}
    </Note>
  );
}

/** Words to be taken elsewhere, with a button that copies them as plain text. */
export function CopyNote({ heading, text, copied }: { heading: string; text: Words; copied: string }) {
  return (
    <Note heading={heading}>
      <p>
        <Said>{text}</Said>
      </p>
      <p className={page.fix}>
        <CopyButton text={copied} />
      </p>
    </Note>
  );
}

/** A caution, with a button for each thing that can be done about it. */
export interface Watch {
  id: string;
  words: Words;
  fixes?: readonly { label: string; act: () => void }[];
}

/** The cautions of a sheet; nothing when there are none. */
export function WatchNote({ watches }: { watches: readonly Watch[] }) {
  if (watches.length === 0) return null;
  return (
    <Note heading="Watch">
      <ul>
        {watches.map(({ id, words, fixes = [] }) => (
          <li key={id}>
            <Said>{words}</Said>
            {fixes.map((fix) => (
              <button key={fix.label} type="button" className={`link ${page.fix}`} onClick={fix.act}>
                {fix.label}
              </button>
            ))}
          </li>
        ))}
      </ul>
    </Note>
  );
}
