"use client";

import { Button } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Computed } from "@/features/study/use-computed";
import type { CheckKind, Finding } from "@/study/analyse/responses/findings";
import { CHECK_WORDS, findingWords, fixAll, fixesOf } from "@/study/report/check-words";
import { counted } from "@/study/report/format-number";
import { type DraftRecipe, firstName, firstRecipe } from "./recipes/draft-recipe";
import css from "./responses.module.css";

interface Props {
  checks: Computed<Finding[]>;
  asked: boolean;
  onAsk: () => void;
  onShow: (rows: number[], variable: string | null) => void;
  onCombine: (draft: DraftRecipe) => void;
}

/** What the checks have found: each with its count, the respondents, why it matters, and fixes that can be taken back. */
export function ChecksSection({ checks, asked, onAsk, onShow, onCombine }: Props) {
  const found = checks.result ?? [];
  const kinds = (Object.keys(CHECK_WORDS) as CheckKind[]).filter((kind) => found.some((f) => f.check === kind));
  return (
    <section id="checks" aria-label="To check" className={css.section}>
      <h2>To check</h2>
      {!asked && (
        <p>
          This is a large file. <Button onClick={onAsk}>Check all answers</Button>
        </p>
      )}
      {checks.fault && <p role="alert">{checks.fault}</p>}
      {asked && checks.computing && !checks.result && (
        <p role="status">
          Checking …{" "}
          <button type="button" className="link" onClick={checks.stop}>
            Stop
          </button>
        </p>
      )}
      {checks.result && found.length === 0 && <p>Nothing is left to check: every check came out clean.</p>}
      <div className={checks.outdated ? css.outdated : undefined}>
        {kinds.map((kind) => (
          <Check key={kind} kind={kind} found={found.filter((f) => f.check === kind)} onShow={onShow} onCombine={onCombine} />
        ))}
      </div>
    </section>
  );
}

function Check(props: { kind: CheckKind; found: Finding[]; onShow: Props["onShow"]; onCombine: Props["onCombine"] }) {
  const { study, store } = useStudy();
  const { kind, found } = props;
  const [open, setOpen] = useState(found.length <= 4);
  const { title, why } = CHECK_WORDS[kind];
  const all = found.length > 1 ? fixAll(found, study) : null;
  const cells = found.reduce((sum, f) => sum + f.count, 0);
  return (
    <article className={css.check}>
      <header>
        <h3>
          {title}{" "}
          <span className="quiet">
            {found.some((f) => f.variable !== null) ? `in ${counted(found.length, "variable")}` : counted(cells, "respondent")}
          </span>
        </h3>
        <p>{why}</p>
        <span className={css.ways}>
          {all && all.edits.length > 0 && (
            <button type="button" className="link" onClick={() => void store.edit(...all.edits)}>
              {all.label}
            </button>
          )}
          {found.length > 4 && (
            <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? "Fold" : `Show all ${found.length}`}
            </button>
          )}
        </span>
      </header>
      {open && (
        <ul>
          {found.map((f) => (
            <FindingLine key={`${f.check} ${f.variable}`} finding={f} onShow={props.onShow} onCombine={props.onCombine} />
          ))}
        </ul>
      )}
    </article>
  );
}

function FindingLine({ finding: f, onShow, onCombine }: { finding: Finding; onShow: Props["onShow"]; onCombine: Props["onCombine"] }) {
  const { study, store } = useStudy();
  const rows = f.groups.length > 0 ? f.groups.flat() : f.rows;
  const combine = f.check === "small-levels" && f.variable !== null ? f.variable : null;
  return (
    <li>
      <span>{findingWords(f, (name) => name)}</span>{" "}
      <span className={css.ways}>
        {rows.length > 0 && (
          <button type="button" className="link" onClick={() => onShow(rows, f.variable)}>
            Show {counted(rows.length, "respondent")}
          </button>
        )}
        {fixesOf(f, study)
          .filter((fix) => fix.edits.length > 0)
          .map((fix) => (
            <button key={fix.label} type="button" className="link" onClick={() => void store.edit(...fix.edits)}>
              {fix.label}
            </button>
          ))}
        {combine !== null && (
          <button
            type="button"
            className="link"
            onClick={() =>
              onCombine({
                opened: null,
                name: firstName("lookup", combine, study),
                label: "",
                recipe: firstRecipe("lookup", combine, study),
              })
            }
          >
            Combine levels …
          </button>
        )}
      </span>
    </li>
  );
}
