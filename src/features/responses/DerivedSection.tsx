"use client";

import { Select } from "antd";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { DerivedVariable } from "@/study/model/derived";
import { derivedFactWords, recipeWords } from "@/study/report/recipe-words";
import { refusalWords } from "@/study/report/refusals";
import { useGrowing } from "@/ui/parts/use-growing";
import { type DraftRecipe, firstName, firstRecipe, RECIPE_WORDS, type RecipeKind, reopened } from "./recipes/draft-recipe";
import { RecipeEditor } from "./recipes/RecipeEditor";
import css from "./responses.module.css";

interface Props {
  draft: DraftRecipe | null;
  onDraft: (draft: DraftRecipe | null) => void;
  onChoose: (name: string) => void;
}

/** Variables worked out from others: each a step on top of the file, in the order they were made. */
export function DerivedSection({ draft, onDraft, onChoose }: Props) {
  const { study } = useStudy();
  const { shown, end } = useGrowing(study.derived.length);
  const first = study.codebook.find((v) => v.kind === "number")?.name ?? study.codebook[0]?.name ?? "";
  return (
    <section id="derived" aria-label="Variables worked out" className={css.section}>
      <h2>Variables worked out</h2>
      {study.derived.length === 0 && !draft && (
        <p>None yet. They stand on top of the answers: nothing of the file is overwritten, and each can be changed or taken away again.</p>
      )}
      <ol className={css.derivedList}>
        {study.derived.slice(0, shown).map((d) => (
          <DerivedLine
            key={d.name}
            derived={d}
            onOpen={reopened(d, study) ? () => onDraft(reopened(d, study)) : null}
            onChoose={() => onChoose(d.name)}
          />
        ))}
      </ol>
      {end}
      {draft ? (
        <RecipeEditor
          key={`${draft.opened} ${draft.recipe.kind} ${"from" in draft.recipe ? draft.recipe.from : ""}`}
          draft={draft}
          onDraft={onDraft}
        />
      ) : (
        <Select
          aria-label="Make a variable"
          placeholder="Make a variable: choose how"
          value={null}
          style={{ width: 300 }}
          getPopupContainer={(node: HTMLElement) => node.parentElement!}
          options={Object.entries(RECIPE_WORDS).map(([value, { name }]) => ({ value, label: name }))}
          onChange={(kind: RecipeKind | null) => {
            if (kind === null) return;
            const from =
              kind === "lookup" || kind === "indicator"
                ? (study.codebook.find((v) => v.kind === "category")?.name ?? first)
                : kind === "years"
                  ? (study.codebook.find((v) => v.kind === "date")?.name ?? first)
                  : first;
            onDraft({ opened: null, name: firstName(kind, from, study), label: "", recipe: firstRecipe(kind, from, study) });
          }}
        />
      )}
    </section>
  );
}

function DerivedLine({ derived, onOpen, onChoose }: { derived: DerivedVariable; onOpen: (() => void) | null; onChoose: () => void }) {
  const { store, title } = useStudy();
  const { result } = useAsked("look", { name: derived.name }, { subject: `look ${derived.name}` });
  const words =
    result === null ? "" : result.status === "seen" ? derivedFactWords(result.look.facts!) : refusalWords(result.refusal, title).what;
  return (
    <li>
      <button type="button" className={css.name} onClick={onChoose}>
        {derived.name}
      </button>
      : {recipeWords(derived.recipe, title)} <span className="quiet">{words}</span>{" "}
      <span className={css.ways}>
        {onOpen && (
          <button type="button" className="link" aria-label={`Change ${derived.name}`} onClick={onOpen}>
            Change
          </button>
        )}
        <button
          type="button"
          className="link"
          aria-label={`Take ${derived.name} away`}
          onClick={() =>
            void store.edit({ subject: "derived", id: derived.name, to: null }, { subject: "variable", id: derived.name, to: null })
          }
        >
          Take away
        </button>
      </span>
    </li>
  );
}
