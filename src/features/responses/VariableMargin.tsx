"use client";

import { useStudy } from "@/features/study/study-context";
import { UsedBy } from "@/features/study/UsedBy";
import { useAsked } from "@/features/study/use-computed";
import { declareMissing } from "@/features/study/declare-missing";
import type { AnswerStrip as AnswerStripCounts } from "@/study/analyse/answer-strip";
import type { SheetOrder } from "@/study/analyse/responses/row-list";
import { correctionId } from "@/study/model/correction";
import { variableTitle } from "@/study/model/variable";
import { counted, formatCount, formatNumber, formatValue } from "@/study/report/format-number";
import { refusalWords } from "@/study/report/refusals";
import { AnswerStrip } from "@/ui/charts/AnswerStrip";
import { LevelBars } from "@/ui/charts/LevelBars";
import { ScoreHistogram } from "@/ui/charts/ScoreHistogram";
import { Margin, Note } from "@/ui/parts/Margin";
import { WatchNote } from "@/ui/parts/notes";
import { KIND_WORDS } from "./CodebookEntry";
import { type DraftRecipe, firstName, firstRecipe, RECIPE_WORDS, recipeName, type RecipeKind } from "./recipes/draft-recipe";
import css from "./responses.module.css";

interface Props {
  name: string | null;
  /** Data row (from 0) of the cell the sheet stands at. */
  row: number | null;
  onOrder: (order: SheetOrder | null) => void;
  onMake: (draft: DraftRecipe) => void;
  counted: string;
}

/** What there is to say of the variable chosen. */
export function VariableMargin(props: Props) {
  const { study } = useStudy();
  const variable = study.codebook.find((v) => v.name === props.name);
  if (!variable) {
    return (
      <Margin>
        <Note heading="The codebook">
          <p>
            Choose a variable to describe it: its wording, its kind, the lowest and highest answer that was possible, and the codes that
            mean a missing answer.
          </p>
          <p>The answers stay as they were imported. What you declare, correct or work out is applied on top, and can be taken back.</p>
        </Note>
      </Margin>
    );
  }
  return <NotesOf key={variable.name} {...props} name={variable.name} />;
}

function NotesOf({ name, row, onOrder, onMake }: Props & { name: string }) {
  const { study, store } = useStudy();
  const variable = study.codebook.find((v) => v.name === name)!;
  const { result } = useAsked("strips", { names: [name] });
  const strip = result?.[0];
  const countable = variable.kind === "item" || variable.kind === "number";
  const derived = study.derived.find((d) => d.name === name);
  const watches = ({ outside, wordsInNumbers }: AnswerStripCounts) => [
    ...(variable.range ? outside : []).slice(0, 5).map(({ value, count }) => ({
      id: String(value),
      words: `${formatValue(value)} stands ${count === 1 ? "once" : `${count} times`} outside the declared answers.`,
      fixes: [
        {
          label: `Count ${formatValue(value)} as missing`,
          act: () => void store.edit(...declareMissing([name], study.codebook, String(value))),
        },
      ],
    })),
    ...(wordsInNumbers === 0
      ? []
      : [
          {
            id: "words",
            words: `${counted(wordsInNumbers, "cell holds", "cells hold")} words where numbers are wanted; ${wordsInNumbers === 1 ? "it counts" : "they count"} as missing.`,
          },
        ]),
  ];
  const correction = row === null ? undefined : study.corrections.find((c) => c.row === row + 1 && c.variable === name);
  return (
    <Margin>
      <Note heading={name}>
        <p>{variableTitle(variable)}</p>
        <p className="quiet">
          {KIND_WORDS[variable.kind]}
          {variable.unit && `, in ${variable.unit}`}
          {derived && `, worked out: ${recipeName(derived.recipe)}`}
        </p>
        {variable.note && <p>{variable.note}</p>}
      </Note>
      {correction && (
        <Note heading={`Respondent ${correction.row}`}>
          <p>
            Corrected by hand: the file says {correction.from ?? "nothing"}, it counts as {correction.to ?? "no answer"}.
          </p>
          <button
            type="button"
            className="link"
            onClick={() => void store.edit({ subject: "correction", id: correctionId(correction), to: null })}
          >
            Take the correction back
          </button>
        </Note>
      )}
      {countable && strip && strip.answers.length > 0 && !derived ? (
        <Note heading="What it holds">
          <AnswerStrip strip={strip} width={236} />
          <p>
            {`${strip.answers.map((a) => `${formatValue(a.value)} (${a.count})`).join(", ")}. `}
            {counted(strip.missing, "respondent")} without an answer.
          </p>
        </Note>
      ) : (
        <LookNote name={name} />
      )}
      {strip && countable && <WatchNote watches={watches(strip)} />}
      <Note heading="In the sheet">
        <p className={css.ways}>
          <button type="button" className="link" onClick={() => onOrder({ by: name, descending: false })}>
            Lowest first
          </button>
          <button type="button" className="link" onClick={() => onOrder({ by: name, descending: true })}>
            Highest first
          </button>
          <button type="button" className="link" onClick={() => onOrder(null)}>
            As in the file
          </button>
        </p>
      </Note>
      <Note heading="Make a variable of it">
        <p className={css.ways}>
          {recipesFor(variable.kind).map((kind) => (
            <button
              key={kind}
              type="button"
              className="link"
              onClick={() =>
                onMake({ opened: null, name: firstName(kind, name, study), label: "", recipe: firstRecipe(kind, name, study) })
              }
            >
              {RECIPE_WORDS[kind].name}
            </button>
          ))}
        </p>
      </Note>
      <UsedBy name={name} />
    </Margin>
  );
}

function recipesFor(kind: string): RecipeKind[] {
  if (kind === "number" || kind === "item") return ["lookup", "ranges", "z", "centre", "transform", "formula", "weighted"];
  if (kind === "date") return ["years", "lookup"];
  return ["lookup", "indicator"];
}

/** The distribution of a variable of any kind. */
function LookNote({ name }: { name: string }) {
  const { study, title } = useStudy();
  const { result } = useAsked("look", { name }, { subject: `look ${name}` });
  const variable = study.codebook.find((v) => v.name === name)!;
  if (!result) return null;
  if (result.status === "refused") {
    const words = refusalWords(result.refusal, title);
    return (
      <Note heading="What it holds">
        <p>
          {words.what} {words.remedy}
        </p>
      </Note>
    );
  }
  const { look } = result;
  const { description: d, histogram } = look;
  const numeric = (variable.kind === "number" || variable.kind === "item") && d !== null && histogram !== null;
  const labels = new Map(variable.levels.map((l) => [l.value, l.label]));
  return (
    <Note heading="What it holds">
      {numeric ? (
        <>
          <ScoreHistogram histogram={histogram} width={236} height={84} title={name} n={d.n} format={(v) => formatNumber(v, 0)} />
          <p>
            M {formatNumber(d.mean)}, SD {formatNumber(d.sd)}, from {formatValue(d.min)} to {formatValue(d.max)}.
          </p>
        </>
      ) : (
        <LevelBars
          levels={look.values.slice(0, 12).map((v) => ({ name: labels.get(v.value) || v.value, count: v.count }))}
          width={236}
          title={name}
        />
      )}
      <p>
        {!numeric && look.distinct > 12 && `${formatCount(look.distinct)} different answers. `}
        {counted(look.missing, "respondent")} without an answer.
      </p>
    </Note>
  );
}
