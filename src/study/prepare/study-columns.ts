import type { ResponseSource } from "../model/response-column";
import type { Scale } from "../model/scale";
import type { Study } from "../model/study";
import { Variable } from "../model/variable";
import { type CategoryColumn, readCategories } from "./category-column";
import { type NumericColumn, type ReadVariable, readNumbers } from "./numeric-column";
import { type KeyedItem, keyItems, type ScaleScores, scoreScale } from "./score-scale";

/** A name stands in the study but the data have no such column. */
export class MissingColumnError extends Error {
  readonly code = "missing-column";
  constructor(readonly details: { column: string }) {
    super(`The data have no column "${details.column}".`);
  }
}

/** The study's variables and scores as numbers, each read or scored once. */
export class StudyColumns {
  private readonly read = new Map<string, ReadVariable>();
  private readonly categorized = new Map<string, CategoryColumn>();
  private readonly scored = new Map<string, { keyed: KeyedItem[]; scores: ScaleScores }>();

  constructor(
    private readonly study: Pick<Study, "codebook" | "scales">,
    private readonly responses: ResponseSource,
  ) {}

  /** @throws MissingColumnError */
  variable(name: string): ReadVariable {
    const known = this.read.get(name);
    if (known) return known;
    const column = this.responses(name);
    if (!column) throw new MissingColumnError({ column: name });
    const read = readNumbers(column, this.codebookRow(name));
    this.read.set(name, read);
    return read;
  }

  /** The same column read as categories, whatever its kind. @throws MissingColumnError */
  categories(name: string): CategoryColumn {
    const known = this.categorized.get(name);
    if (known) return known;
    const column = this.responses(name);
    if (!column) throw new MissingColumnError({ column: name });
    const read = readCategories(column, this.codebookRow(name));
    this.categorized.set(name, read);
    return read;
  }

  /** Who answered: words count as answers only where the kind expects them. @throws MissingColumnError, UndeclaredRangeError */
  answered(name: string): { readonly missing: Uint8Array } {
    const kind = this.study.codebook.find((v) => v.name === name)?.kind;
    return kind === "category" || kind === "text" || kind === "code" ? this.categories(name) : this.numbers(name);
  }

  /** True when a term with this name is a category: its variable's kind says so. */
  isCategory(name: string): boolean {
    return this.study.codebook.some((v) => v.name === name && v.kind === "category");
  }

  /** @throws MissingColumnError, UndeclaredRangeError */
  scale(scale: Scale): { keyed: KeyedItem[]; scores: ScaleScores } {
    const known = this.scored.get(scale.id);
    if (known) return known;
    const keyed = keyItems(
      scale,
      scale.items.map((item) => ({
        column: this.variable(item.variable),
        range: this.codebookRow(item.variable).range,
      })),
    );
    const result = { keyed, scores: scoreScale(scale, keyed) };
    this.scored.set(scale.id, result);
    return result;
  }

  /** A variable, or the score of a scale, by the name terms use. @throws MissingColumnError, UndeclaredRangeError */
  numbers(name: string): NumericColumn {
    const scale = this.study.scales.find((s) => s.id === name);
    return scale ? this.scale(scale).scores : this.variable(name);
  }

  codebookRow(name: string): Variable {
    return this.study.codebook.find((v) => v.name === name) ?? Variable.parse({ name });
  }
}

/** The data columns a variable or scale name stands on. */
export function columnsBehind(study: Pick<Study, "scales">, name: string): string[] {
  const scale = study.scales.find((s) => s.id === name);
  return scale ? scale.items.map((item) => item.variable) : [name];
}
