"use client";

import { useIsFetching, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "next/navigation";
import { startTransition, useEffect, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { counted, formatCount } from "@/study/report/format-number";
import page from "@/ui/parts/page.module.css";
import { AnswersGrid, type Place } from "./AnswersGrid";
import { ChecksSection } from "./ChecksSection";
import { Codebook } from "./Codebook";
import { CodebookFiles } from "./CodebookFiles";
import { DerivedSection } from "./DerivedSection";
import { FiltersSection } from "./FiltersSection";
import { FurtherResponses } from "./FurtherResponses";
import { MissingSection } from "./MissingSection";
import { OpenSection } from "./open/OpenSection";
import type { DraftRecipe } from "./recipes/draft-recipe";
import css from "./responses.module.css";
import { SeriousSection } from "./SeriousSection";
import { SheetSentence, type SheetView } from "./SheetSentence";
import { useNamedPart } from "./use-named-part";
import { VariableMargin } from "./VariableMargin";
import { Withdrawal } from "./Withdrawal";

/** A sheet of this many cells is checked without being asked; a larger one when somebody wants it. */
const CHECKED_AT_ONCE = 3_000_000;

/** Codebook and answers side by side, and below them what is to check, what is made of them, and who is left out. */
export function ResponsesScreen() {
  const { study, dataset } = useStudy();
  const [chosen, setChosen] = useState<string | null>(null);
  const [view, setView] = useState<SheetView>({ shown: { kind: "all" }, order: null, as: "values" });
  const [at, setAt] = useState<Place>({ row: 0, column: 0 });
  const [wide, setWide] = useState(false);
  const [wanted, setWanted] = useState(dataset.rows * dataset.columns.length <= CHECKED_AT_ONCE);
  const [draft, setDraft] = useState<DraftRecipe | null>(null);
  const below = useBelow();
  const natural = view.shown.kind === "all" && view.order === null;
  const list = useAsked("row-list", { shown: view.shown, order: view.order });
  const rows = natural ? null : list.result;
  const checks = useAsked("checks", {}, { enabled: wanted });
  const points = useAsked("open-points", {}, { enabled: wanted });
  useRespondentAsked((row) => {
    if (rows && !rows.includes(row)) setView({ ...view, shown: { kind: "all" }, order: null });
    setAt({ row: rows?.includes(row) ? rows.indexOf(row) : row, column: at.column });
  });
  useVariableAsked((name) => {
    const column = study.codebook.findIndex((v) => v.name === name);
    if (column < 0) return;
    setAt({ row: at.row, column });
    setChosen(name);
  });
  const place = (next: Place) => {
    setAt(next);
    setChosen(study.codebook[next.column]?.name ?? null);
  };
  const show = (found: number[], variable: string | null) => {
    setView({ ...view, shown: { kind: "rows", rows: found } });
    setAt({ row: 0, column: variable === null ? at.column : study.codebook.findIndex((v) => v.name === variable) });
    if (variable !== null) setChosen(variable);
    document.getElementById("answers")?.scrollIntoView({ block: "start" });
  };
  /** The editor stands far below: it is brought into sight, and can be typed in at once. */
  const make = (recipe: DraftRecipe) => {
    setDraft(recipe);
    requestAnimationFrame(() => {
      const editor = document.getElementById("recipe-editor");
      editor?.scrollIntoView({ block: "center" });
      editor?.querySelector<HTMLElement>("input, select, textarea")?.focus({ preventScroll: true });
    });
  };
  useRowsAsked((asked) => show(asked, null));
  const dataRow = rows ? rows[at.row] : at.row;
  // words that wait to be read are no levels: how few chose one is no matter yet
  const waiting = new Set((points.result ?? []).flatMap((point) => (point.kind === "answers" ? point.set.variables : [])));
  const told = checks.result?.filter((f) => !(f.check === "small-levels" && waiting.has(f.variable ?? ""))) ?? null;
  const open = told?.length ?? 0;

  return (
    <div className={page.page}>
      <main className={page.sheet}>
        <SheetSentence view={view} onView={setView} shownCount={rows?.length ?? dataset.rows} />
        <nav aria-label="On this page" className={css.contents}>
          <a href="#open">Understood, and open{points.result ? ` (${formatCount(points.result.length)})` : ""}</a>
          <a href="#checks">To check{checks.result ? ` (${formatCount(open)})` : ""}</a>
          <a href="#serious">Who answered seriously</a>
          <a href="#derived">Variables worked out ({study.derived.length})</a>
          <a href="#filters">Left out, and filters ({study.filters.length})</a>
          <a href="#missing">Missing answers</a>
          <a href="#further">Take in more, or save</a>
        </nav>
        <OpenSection points={points} asked={wanted} onAsk={() => setWanted(true)} />
        <div className={wide ? css.one : css.halves}>
          {!wide && (
            <section aria-label="Codebook and kinds">
              <h2>Codebook</h2>
              <Codebook chosen={chosen} onChoose={setChosen} />
            </section>
          )}
          <section aria-label="Answers" id="answers">
            <h2>
              Answers{" "}
              <button type="button" className="link" onClick={() => setWide(!wide)}>
                {wide ? "show the codebook beside them" : "widen"}
              </button>
            </h2>
            <AnswersGrid
              chosen={chosen}
              rows={rows}
              version={natural ? "natural" : versionOf(list.result)}
              view={view.as}
              at={at}
              onAt={place}
              onChoose={setChosen}
            />
          </section>
        </div>
        {below && (
          <>
            <ChecksSection
              checks={{ ...checks, result: told }}
              asked={wanted}
              onAsk={() => setWanted(true)}
              onShow={show}
              onCombine={make}
            />
            <SeriousSection asked={wanted} onAsk={() => setWanted(true)} onShow={show} />
            <DerivedSection draft={draft} onDraft={setDraft} onChoose={setChosen} />
            <FiltersSection onShow={(shown) => setView({ ...view, shown })} />
            <MissingSection onShow={(row) => show([row], null)} />
            <section id="further" aria-label="Take in more, or save" className={css.section}>
              <h2>Take in more, or save</h2>
              <FurtherResponses />
              <CodebookFiles />
              <Withdrawal />
            </section>
          </>
        )}
      </main>
      <VariableMargin
        name={chosen}
        row={dataRow ?? null}
        onOrder={(order) => setView({ ...view, order })}
        onMake={make}
        counted={counted(rows?.length ?? dataset.rows, "respondent")}
      />
    </div>
  );
}

/** True once the first answers stand: what lies below them is drawn after them. */
function useBelow(): boolean {
  const client = useQueryClient();
  const [below, setBelow] = useState(false);
  const waiting = useIsFetching(CELLS) > 0;
  useEffect(() => {
    if (client.isFetching(CELLS) === 0) startTransition(() => setBelow(true));
  }, [client, waiting]);
  useNamedPart(below);
  return below;
}

const CELLS = { queryKey: ["cells"] };

const versions = new WeakMap<object, string>();
let lastVersion = 0;

/** A name for a list of rows that no other list has. */
function versionOf(list: object | null): string {
  if (!list) return "none";
  const known = versions.get(list) ?? `list ${++lastVersion}`;
  versions.set(list, known);
  return known;
}

/** Calls when an address asks for a respondent (?respondent=17, rows from 1): once for each asking. */
function useRespondentAsked(jump: (row: number) => void): void {
  useAskedBy("respondent", (asked) => {
    const row = Number(asked.split("-")[0]);
    if (Number.isInteger(row) && row >= 1) jump(row - 1);
  });
}

/** The same for several rows (?rows=3,17). */
function useRowsAsked(show: (rows: number[]) => void): void {
  useAskedBy("rows", (asked) => {
    const rows = asked.split(",").map(Number);
    if (rows.every((row) => Number.isInteger(row) && row >= 1)) show(rows);
  });
}

/** The same for a variable (?variable=age). */
function useVariableAsked(show: (name: string) => void): void {
  useAskedBy("variable", show);
}

function useAskedBy(name: string, answer: (asked: string) => void): void {
  const asked = useSearchParams().get(name);
  const [done, setDone] = useState<string | null>(null);
  useEffect(() => {
    if (asked === null || asked === done) return;
    queueMicrotask(() => {
      setDone(asked);
      answer(asked);
    });
  });
}
