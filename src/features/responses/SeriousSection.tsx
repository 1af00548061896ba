"use client";

import { Button } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { Screen } from "@/study/analyse/responses/seriousness";
import type { SeriousnessBounds } from "@/study/kinds/seriousness";
import { findingWords, fixesOf } from "@/study/report/check-words";
import { counted, formatPlain } from "@/study/report/format-number";
import { flowSentence, screenFilter, screenTitle, screenWords } from "@/study/report/serious-words";
import { FieldWord } from "@/ui/parts/FieldWord";
import { readNumber } from "@/ui/parts/read-number";
import { CopyButton } from "@/ui/parts/CopyButton";
import css from "./responses.module.css";

/** Who answered in earnest: what the file tells of it, each with its bound as a word that can be changed, and the filter in one click. */
export function SeriousSection({
  asked,
  onAsk,
  onShow,
}: {
  asked: boolean;
  onAsk: () => void;
  onShow: (rows: number[], variable: string | null) => void;
}) {
  const [bounds, setBounds] = useState<SeriousnessBounds>({ progress: null, duration: null, straight: 8 });
  const answer = useAsked("seriousness", bounds, { enabled: asked });
  const found = answer.result;
  return (
    <section id="serious" aria-label="Who answered seriously" className={css.section}>
      <h2>Who answered seriously</h2>
      {!asked && (
        <p>
          This is a large file. <Button onClick={onAsk}>Look at all respondents</Button>
        </p>
      )}
      {answer.fault && <p role="alert">{answer.fault}</p>}
      {asked && answer.computing && !found && (
        <p role="status">
          Looking at all respondents …{" "}
          <button type="button" className="link" onClick={answer.stop}>
            Stop
          </button>
        </p>
      )}
      {found && (
        <div className={answer.outdated ? css.outdated : undefined}>
          {found.screens.map((screen) => (
            <ScreenLine key={keyOf(screen)} screen={screen} bounds={bounds} onBounds={setBounds} onShow={onShow} />
          ))}
          {!found.screens.some((screen) => screen.kind === "finding" && screen.finding.check === "straight-line") && (
            <p className="quiet">
              Nobody gave one and the same answer to all of <StraightWord bounds={bounds} onBounds={setBounds} /> items or more.
            </p>
          )}
          <p className={css.method}>
            {flowSentence(found)} <CopyButton text={flowSentence(found)} />
          </p>
        </div>
      )}
    </section>
  );
}

const keyOf = (screen: Screen) =>
  screen.kind === "finding" ? `${screen.finding.check} ${screen.finding.variable}` : `${screen.kind} ${screen.variable}`;

interface Bounded {
  bounds: SeriousnessBounds;
  onBounds: (bounds: SeriousnessBounds) => void;
}

function ScreenLine({
  screen,
  bounds,
  onBounds,
  onShow,
}: Bounded & { screen: Screen; onShow: (rows: number[], variable: string | null) => void }) {
  const { study, store, title } = useStudy();
  const { title: heading, why } = screenTitle(screen);
  const rows = screen.kind === "finding" && screen.finding.groups.length > 0 ? screen.finding.groups.flat() : screen.rows;
  const variable = screen.kind === "finding" ? screen.finding.variable : screen.variable;
  return (
    <article className={css.check}>
      <header>
        <h3>
          {heading} <span className="quiet">{counted(screen.rows.length, "respondent")}</span>
        </h3>
        <p>{why}</p>
      </header>
      <p>
        {(screen.kind === "progress" || screen.kind === "duration") && (
          <>
            {title(screen.variable)} below{" "}
            <FieldWord
              label={`Bound of ${title(screen.variable)}`}
              text={formatPlain(screen.below)}
              rule="A number."
              read={readNumber}
              onChange={(below) => onBounds({ ...bounds, [screen.kind]: below })}
            />
            .{" "}
          </>
        )}
        {screen.kind === "finding" ? findingWords(screen.finding, (name) => name) : screenWords(screen, title)}{" "}
        {screen.kind === "finding" && screen.finding.check === "straight-line" && (
          <>
            At least <StraightWord bounds={bounds} onBounds={onBounds} /> items with one answer.{" "}
          </>
        )}
        <span className={css.ways}>
          {rows.length > 0 && (
            <button type="button" className="link" onClick={() => onShow(rows, variable)}>
              Show {counted(rows.length, "respondent")}
            </button>
          )}
          {screen.rows.length > 0 && (
            <button type="button" className="link" onClick={() => void store.edit(...screenFilter(screen, study, title))}>
              {screen.kind === "finding"
                ? fixesOf(screen.finding, study)[0]!.label
                : `Leave ${screen.rows.length === 1 ? "this one" : `these ${screen.rows.length}`} out`}
            </button>
          )}
        </span>
      </p>
    </article>
  );
}

function StraightWord({ bounds, onBounds }: Bounded) {
  return (
    <FieldWord
      label="Items with one and the same answer"
      text={String(bounds.straight)}
      rule="A whole number from 3 on."
      read={(typed) => {
        const value = readNumber(typed);
        return value !== null && Number.isInteger(value) && value >= 3 && value <= 500 ? value : null;
      }}
      onChange={(straight) => onBounds({ ...bounds, straight })}
    />
  );
}
