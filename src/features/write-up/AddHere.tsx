"use client";

import { memo, useState } from "react";
import type { BlockContent } from "@/study/model/block";
import { ChoiceField } from "@/ui/parts/SettingWord";
import css from "./write-up.module.css";

/** What can be put between two blocks, as the end of a sentence. */
export interface Addable {
  words: string;
  what: BlockContent;
}

/** The gap between two blocks: a + that becomes a list of what can stand there. */
export const AddHere = memo(function AddHere(props: {
  place: number;
  addable: () => readonly Addable[];
  onAdd: (place: number, what: BlockContent) => void;
}) {
  const [choices, setChoices] = useState<readonly Addable[] | null>(null);
  if (!choices)
    return (
      <div className={css.gap}>
        <button type="button" aria-label={`Add at place ${props.place + 1}`} onClick={() => setChoices(props.addable())}>
          +
        </button>
      </div>
    );
  return (
    <div className={css.gapOpen} onKeyDownCapture={(event) => event.key === "Escape" && setChoices(null)}>
      Here{" "}
      <ChoiceField
        aria-label="What to add here"
        value={null}
        width={420}
        placeholder="a heading, text of your own, the table of …"
        choices={choices.map(({ words }, i) => ({ value: String(i), label: words }))}
        onChoose={(i) => {
          setChoices(null);
          props.onAdd(props.place, choices[Number(i)]!.what);
        }}
        onLeave={() => setChoices(null)}
      />
    </div>
  );
});
