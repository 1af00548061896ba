"use client";

import { Button, Input } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useDraftLook } from "./use-draft-look";
import { DerivedVariable, type WrittenRecipe } from "@/study/model/derived";
import type { Edit } from "@/study/model/edit";
import { Variable } from "@/study/model/variable";
import { derivedFactWords } from "@/study/report/recipe-words";
import { refusalWords } from "@/study/report/refusals";
import css from "../responses.module.css";
import { type DraftRecipe, indicatorsOf, kindOf, levelsOf, RECIPE_WORDS } from "./draft-recipe";
import { formulaFault, FormulaRecipe } from "./FormulaRecipe";
import { FromField } from "./FromField";
import { IndicatorRecipe, LookupRecipe } from "./LookupRecipe";
import { RangesRecipe } from "./RangesRecipe";
import { TransformRecipe, WeightedRecipe, YearsRecipe } from "./SmallRecipes";

/** A recipe being written. What it gives is worked out while it is written; nothing is kept until it is. */
export function RecipeEditor({ draft, onDraft }: { draft: DraftRecipe; onDraft: (draft: DraftRecipe | null) => void }) {
  const { study, store } = useStudy();
  const [fault, setFault] = useState<string | null>(null);
  const parsed = DerivedVariable.safeParse({ name: draft.name, recipe: draft.recipe });
  const taken =
    draft.opened === null && [...study.codebook.map((v) => v.name), ...study.scales.map((s) => s.id)].includes(draft.name.trim());
  const set = (recipe: WrittenRecipe) => onDraft({ ...draft, recipe });

  const keep = () => {
    if (!parsed.success) return setFault(parsed.error.issues[0]!.message);
    if (taken) return setFault(`The name “${draft.name.trim()}” is taken. Nothing is overwritten: choose another name.`);
    const { name, recipe } = parsed.data;
    const before = study.codebook.find((v) => v.name === name);
    const levels = levelsOf(recipe).map((value) => ({ value, label: before?.levels.find((l) => l.value === value)?.label ?? "" }));
    const to = Variable.parse({ ...(before ?? { name }), label: draft.label, kind: kindOf(recipe), levels });
    const edits: Edit[] = [
      { subject: "variable", id: name, to, at: study.codebook.length },
      { subject: "derived", id: name, to: { name, recipe } },
    ];
    if (store.edit(...edits)) onDraft(null);
    else setFault(store.snapshot().fault);
  };

  /** An indicator for every level of a category, each under a name of its own. */
  const keepEach = () => {
    if (draft.recipe.kind !== "indicator") return;
    const edits = indicatorsOf(draft.recipe.from, study);
    if (edits.length === 0) setFault("The codebook gives this variable no levels.");
    else if (store.edit(...edits)) onDraft(null);
    else setFault(store.snapshot().fault);
  };

  return (
    <form
      id="recipe-editor"
      className={css.recipe}
      aria-label={`${RECIPE_WORDS[draft.recipe.kind].name}`}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDraft(null)}
    >
      <div className={css.recipeHead}>
        <label>
          {draft.opened === null ? "New variable" : "Variable"}{" "}
          <Input
            size="small"
            aria-label="Name of the variable"
            style={{ width: 190 }}
            value={draft.name}
            disabled={draft.opened !== null}
            status={taken ? "error" : ""}
            onChange={(event) => onDraft({ ...draft, name: event.target.value })}
          />
        </label>
        <label>
          label{" "}
          <Input
            size="small"
            aria-label="Label of the variable"
            style={{ width: 260 }}
            value={draft.label}
            onChange={(e) => onDraft({ ...draft, label: e.target.value })}
          />
        </label>
        <span className="quiet">{RECIPE_WORDS[draft.recipe.kind].sentence}</span>
      </div>
      {"from" in draft.recipe && (
        <FromField
          value={draft.recipe.from}
          scales={
            draft.recipe.kind === "z" ||
            draft.recipe.kind === "centre" ||
            draft.recipe.kind === "transform" ||
            draft.recipe.kind === "ranges"
          }
          onChange={(from) => set({ ...draft.recipe, from } as WrittenRecipe)}
        />
      )}
      <RecipeFields recipe={draft.recipe} onChange={set} />
      {unreadable(draft.recipe) ? null : parsed.success && !taken ? (
        <Outcome key={draft.name} draft={parsed.data} />
      ) : (
        <p className="quiet">{taken ? "That name is taken." : parsed.error?.issues[0]?.message}</p>
      )}
      <div className={css.ways}>
        <Button type="primary" size="small" htmlType="submit">
          Keep
        </Button>
        {draft.recipe.kind === "indicator" && draft.opened === null && (
          <button type="button" className="link" onClick={keepEach}>
            Keep one for each level instead
          </button>
        )}
        <button type="button" className="link" onClick={() => onDraft(null)}>
          {draft.opened === null ? "Make nothing" : "Leave it as it was"}
        </button>
      </div>
      {fault && <p role="alert">{fault}</p>}
    </form>
  );
}

/** What comes out as it stands, or why nothing does. */
function Outcome({ draft: derived }: { draft: DerivedVariable }) {
  const { title } = useStudy();
  const { result, outdated } = useDraftLook(derived);
  if (!result) return <p className="quiet">…</p>;
  if (result.status === "refused") {
    const words = refusalWords(result.refusal, title);
    return (
      <p role="alert" className={css.formulaFault}>
        {words.what} {words.remedy}
      </p>
    );
  }
  const { look } = result;
  return (
    <p role="status" data-testid="recipe-outcome" className={outdated ? css.outdated : undefined}>
      {derivedFactWords(look.facts!)}{" "}
      {look.distinct <= 12 &&
        `It would hold ${
          look.values
            .filter((v) => v.count > 0)
            .map((v) => `${v.value} (${v.count})`)
            .join(", ") || "nothing"
        }.`}
    </p>
  );
}

/** A formula that cannot be read is pointed at where it is written. */
function unreadable(recipe: WrittenRecipe): boolean {
  return recipe.kind === "formula" && formulaFault(recipe.formula) !== null;
}

function RecipeFields({ recipe, onChange }: { recipe: WrittenRecipe; onChange: (recipe: WrittenRecipe) => void }) {
  switch (recipe.kind) {
    case "lookup":
      return <LookupRecipe recipe={recipe} onChange={onChange} />;
    case "indicator":
      return <IndicatorRecipe recipe={recipe} onChange={onChange} />;
    case "ranges":
      return <RangesRecipe recipe={recipe} onChange={onChange} />;
    case "formula":
      return <FormulaRecipe recipe={recipe} onChange={onChange} />;
    case "weighted":
      return <WeightedRecipe recipe={recipe} onChange={onChange} />;
    case "transform":
      return <TransformRecipe recipe={recipe} onChange={onChange} />;
    case "years":
      return <YearsRecipe recipe={recipe} onChange={onChange} />;
    default:
      return null;
  }
}
