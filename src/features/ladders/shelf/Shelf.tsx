"use client";

import { useState } from "react";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import { useResults } from "@/features/study/use-computed";
import { useOutdated } from "@/features/study/use-seen";
import type { KeptName } from "@/study/kinds/kinds";
import { usedBy } from "@/study/kinds/standing";
import { Comparison } from "@/study/model/comparison";
import { type Ladder } from "@/study/model/ladder";
import { titleOf } from "@/study/model/study";
import { counted, formatShare, listed } from "@/study/report/format-number";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { numericChoices } from "@/features/study/name-choices";
import { copyLadder } from "../ladder-edits";
import { RiseThumbnail } from "./RiseThumbnail";
import css from "./shelf.module.css";

const MOST_BESIDE = 4;

/** The study's ladders with their rise in small, those set side by side, and what can be done with the one that is open. */
export function Shelf(props: {
  ladder: Ladder | null;
  comparison: Comparison | null;
  onLadder: (id: string) => void;
  onComparison: (id: string) => void;
  onCreate: () => void;
}) {
  const { study, store } = useStudy();
  const outdated = useOutdated();
  const results = useResults("ladder", study.ladders, props.ladder?.id ?? null);
  const [picking, setPicking] = useState<readonly string[] | null>(null);
  const pick = (id: string) => setPicking((now) => (now!.includes(id) ? now!.filter((one) => one !== id) : [...now!, id]));

  const setSideBySide = () => {
    const chosen = study.ladders.filter((l) => picking!.includes(l.id));
    const name = chosen
      .map((l) => l.name)
      .join(" / ")
      .slice(0, 200);
    const id = newId(
      "side by side",
      study.comparisons.map((c) => c.id),
    );
    const models = chosen.map((l, i) => ({ name: unique(l.name, i, chosen), ladder: l.id }));
    if (!store.edit({ subject: "comparison", id, to: Comparison.parse({ id, name, models }) })) return;
    setPicking(null);
    props.onComparison(id);
  };

  return (
    <>
      <h2 className={css.head}>Ladders in this study</h2>
      <ul className={css.shelf}>
        {study.ladders.map((ladder) => {
          const result = results.get(ladder.id);
          const fit = result?.status === "fitted" ? result.fit : null;
          return (
            <li key={ladder.id} className={css.entry}>
              {picking && (
                <input
                  type="checkbox"
                  aria-label={`Set ${ladder.name} beside others`}
                  checked={picking.includes(ladder.id)}
                  disabled={picking.length >= MOST_BESIDE && !picking.includes(ladder.id)}
                  onChange={() => pick(ladder.id)}
                />
              )}
              <button
                type="button"
                className={css.ladder}
                aria-current={ladder === props.ladder ? "true" : undefined}
                onClick={() => props.onLadder(ladder.id)}
              >
                {ladder.name}
                <span className={css.small}>
                  <RiseThumbnail fit={fit} />
                  <small>
                    {counted(ladder.steps.length, "step")}
                    {fit && (
                      <>
                        <br />
                        <i>R</i>² {formatShare(fit.steps.at(-1)!.model.R2, 3)}, <i>N</i> {fit.n}
                      </>
                    )}
                    {result?.status === "refused" && (
                      <>
                        <br />
                        no numbers yet
                      </>
                    )}
                  </small>
                </span>
                {outdated.has(`ladder ${ladder.id}`) && ladder !== props.ladder && (
                  <small className={page.stale}>out of date: open it to see what changed</small>
                )}
              </button>
            </li>
          );
        })}
      </ul>
      {study.comparisons.length > 0 && (
        <>
          <h2 className={css.head}>Side by side</h2>
          <ul className={css.shelf}>
            {study.comparisons.map((c) => (
              <li key={c.id}>
                <button
                  type="button"
                  className={css.ladder}
                  aria-current={c === props.comparison ? "true" : undefined}
                  onClick={() => props.onComparison(c.id)}
                >
                  {c.name}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <p className={css.ways}>
        <button type="button" className="link" onClick={props.onCreate}>
          + New ladder
        </button>
      </p>
      {study.ladders.length > 1 &&
        (picking ? (
          <p className={css.ways}>
            <button type="button" className="link" disabled={picking.length < 2} onClick={setSideBySide}>
              Set {picking.length < 2 ? "two to four" : picking.length} side by side
            </button>{" "}
            <button type="button" className="link" onClick={() => setPicking(null)}>
              Leave it
            </button>
          </p>
        ) : (
          <p className={css.ways}>
            <button type="button" className="link" onClick={() => setPicking(props.ladder ? [props.ladder.id] : [])}>
              Set side by side
            </button>
          </p>
        ))}
      {props.ladder && <OpenLadder ladder={props.ladder} onOpen={props.onLadder} />}
      {props.comparison && (
        <p className={css.ways}>
          <button type="button" className="link" onClick={() => store.edit({ subject: "comparison", id: props.comparison!.id, to: null })}>
            Put this side-by-side away
          </button>
        </p>
      )}
    </>
  );
}

/** Two ladders of one name are told apart by a number. */
function unique(name: string, at: number, all: readonly Ladder[]): string {
  const before = all.slice(0, at).filter((l) => l.name === name).length;
  return before === 0 ? name : `${name} (${before + 1})`;
}

/** Name, copies and end of the ladder that is open. */
function OpenLadder({ ladder, onOpen }: { ladder: Ladder; onOpen: (id: string) => void }) {
  const { study, store } = useStudy();
  const ids = study.ladders.map((l) => l.id);
  const copy = (name: string, outcome: string | null) => {
    const id = newId(name, ids);
    if (store.edit({ subject: "ladder", id, to: copyLadder(ladder, { id, name: name.slice(0, 200), outcome }) })) onOpen(id);
  };
  const used = usedBy(study, { kind: "ladder", id: ladder.id });
  const remove = () =>
    store.edit(...[...used, { kind: "ladder", id: ladder.id }].map(({ kind, id }) => ({ subject: kind as KeptName, id, to: null })));
  return (
    <div className={css.ways}>
      <SettingWord
        label="Copy to another outcome"
        className="link"
        value={null}
        text="Copy to another outcome"
        choices={numericChoices(study, new Set(ladder.outcome === null ? [] : [ladder.outcome]))}
        onChange={(outcome) => copy(titleOf(study, outcome), outcome)}
      />
      <br />
      <FieldWord
        label="Name of this ladder"
        text="Rename"
        initial={ladder.name}
        className="link"
        width={146}
        read={(typed) => (typed.trim() === "" || typed.length > 200 ? null : typed.trim())}
        rule="A name, please."
        onChange={(name) => store.edit({ subject: "ladder", id: ladder.id, to: { ...ladder, name } })}
      />
      {", "}
      <button type="button" className="link" onClick={() => copy(`${ladder.name}, copy`, ladder.outcome)}>
        copy
      </button>{" "}
      or{" "}
      <button
        type="button"
        className="link"
        title={used.length > 0 ? `With it: ${listed(used.map((one) => one.name))}` : undefined}
        onClick={remove}
      >
        remove
      </button>{" "}
      this ladder
    </div>
  );
}
