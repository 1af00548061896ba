import { CopyButton } from "./CopyButton";
import { Note } from "./Margin";
import page from "./page.module.css";
import { StatText } from "./StatText";

/** Sentences of a report under a heading of the margin. */
export function SentencesNote({ heading, sentences }: { heading: string; sentences: readonly string[] }) {
  return (
    <Note heading={heading}>
      {sentences.map((sentence) => (
        <p key={sentence}>
          <StatText>{sentence}</StatText>
        </p>
      ))}
    </Note>
  );
}

/** Words to be taken elsewhere, with a button that copies them as plain text. */
export function CopyNote({ heading, text }: { heading: string; text: string }) {
  return (
    <Note heading={heading}>
      <p>
        <StatText>{text}</StatText>
      </p>
      <p className={page.fix}>
        <CopyButton text={text} />
      </p>
    </Note>
  );
}

/** A caution, with a button for each thing that can be done about it. */
export interface Watch {
  id: string;
  words: string;
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
            <StatText>{words}</StatText>
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
