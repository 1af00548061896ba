import { CoreError } from "@/core/errors";
import { filtersBehind, namesBehind } from "../model/dependencies";
import type { ResponseColumn, ResponseSource } from "../model/response-column";
import type { Condition, RespondentFilter } from "../model/respondent-filter";
import { type Scale, scoredOverSample } from "../model/scale";
import type { StudyContext } from "../model/context";
import { type AnswerRange, Variable } from "../model/variable";
import { type CategoryColumn, readCategories } from "./category-column";
import { readColumn } from "./answers/read-answers";
import { correctedColumn } from "./corrected-column";
import { derive } from "./derive/derive";
import type { Derivation, DerivedFacts } from "./derive/derived-column";
import { byName } from "../model/by-name";
import { keptRows, unmetValues } from "./kept-rows";
import { type NumericColumn, type ReadVariable, readNumbers } from "./numeric-column";
import { type KeyedItem, keyItems, type ScaleScores, scoreScale } from "./score-scale";

/** A name stands in the study but the data have no such column. */
export class MissingColumnError extends CoreError {
  readonly code = "missing-column";
  constructor(readonly details: { column: string }) {
    super(`The data have no column "${details.column}".`);
  }
}

/** A variable would be worked out from itself. A study with a circle is never saved; a draft may have one. */
export class CircleError extends CoreError {
  readonly code = "circle";
  constructor(readonly details: { variable: string }) {
    super(`"${details.variable}" would be worked out from itself.`);
  }
}

/** Keeps columns that were worked out or read from one job to the next, by everything they depend on. */
export interface ColumnCache {
  get(key: string): unknown;
  set(key: string, value: unknown, cells: number): void;
}

const WORDS: ReadonlySet<string> = new Set(["category", "date", "text", "code"]);

/** Every column of a study as it counts: corrected, derived, read or scored, each once. */
export class StudyColumns {
  private readonly held = new Map<string, ResponseColumn>();
  private readonly derivations = new Map<string, Derivation>();
  private readonly working = new Set<string>();
  private readonly read = new Map<string, ReadVariable>();
  private readonly categorized = new Map<string, CategoryColumn>();
  private readonly scored = new Map<string, { keyed: KeyedItem[]; scores: ScaleScores }>();
  private readonly scores = new Map<string, NumericColumn>();
  private readonly masks = new Map<string, Uint8Array>();

  constructor(
    private readonly study: StudyContext,
    private readonly responses: ResponseSource,
    private readonly cache: ColumnCache | null = null,
  ) {}

  /** The column as imported with its corrections and its answers read, or as derived. @throws MissingColumnError, what a recipe throws */
  column(name: string): ResponseColumn {
    const known = this.held.get(name);
    if (known) return known;
    const column = this.recipeOf(name) ? this.derivation(name).column : this.counted(name);
    this.held.set(name, column);
    return column;
  }

  /** A column of the file as it counts. @throws MissingColumnError */
  private counted(name: string): ResponseColumn {
    const corrected = this.corrected(name);
    const reading = this.study.readings?.find((r) => r.variables.includes(name));
    if (!reading) return corrected;
    return this.shelved(
      "read",
      name,
      () => readColumn(corrected, reading.rule),
      (made) => made.values.length,
    );
  }

  /** A column of the file with its corrections, in the words of the file. @throws MissingColumnError */
  corrected(name: string): ResponseColumn {
    return correctedColumn(this.imported(name), this.study.corrections ?? []);
  }

  /** How a derived variable came out. */
  facts(name: string): DerivedFacts {
    return this.derivation(name).facts;
  }

  /** @throws MissingColumnError */
  variable(name: string): ReadVariable {
    return this.once(this.read, name, () =>
      this.shelved(
        "numbers",
        name,
        () => readNumbers(this.column(name), this.codebookRow(name)),
        (made) => made.values.length,
      ),
    );
  }

  /** The same column read as categories, whatever its kind. @throws MissingColumnError */
  categories(name: string): CategoryColumn {
    return this.once(this.categorized, name, () =>
      this.shelved(
        "categories",
        name,
        () => readCategories(this.column(name), this.codebookRow(name)),
        (made) => made.codes.length,
      ),
    );
  }

  /** Who answered: words count as answers only where the kind expects them. @throws MissingColumnError, UndeclaredRangeError */
  answered(name: string): { readonly missing: Uint8Array } {
    return this.isWords(name) ? this.categories(name) : this.numbers(name);
  }

  /** True when a name is that of a scale. */
  isScale(name: string): boolean {
    return this.study.scales.some((s) => s.id === name);
  }

  /** True when a term with this name is a category: its variable's kind says so. */
  isCategory(name: string): boolean {
    return byName(this.study.codebook, name)?.kind === "category";
  }

  /** @throws MissingColumnError, UndeclaredRangeError */
  scale(scale: Scale): { keyed: KeyedItem[]; scores: ScaleScores } {
    return this.once(this.scored, scale.id, () =>
      this.unlessCircle(scale.id, () => {
        const keyed = this.keyed(scale.name, scale.items);
        const inStudy = scoredOverSample(scale) ? this.kept(keyed[0]!.values.length) : null;
        return { keyed, scores: scoreScale(scale, keyed, inStudy) };
      }),
    );
  }

  /** Items, or scales as items, turned round where they are reverse-keyed. @throws MissingColumnError, UndeclaredRangeError */
  keyed(of: string, parts: readonly { readonly variable: string; readonly reversed: boolean }[]): KeyedItem[] {
    return keyItems(
      of,
      parts,
      parts.map(({ variable }) => ({ column: this.numbers(variable), range: this.possible(variable) })),
    );
  }

  /** Lowest and highest possible value: as declared of a variable, as it follows from the items of a scale. Null where it is not known. */
  possible(name: string): AnswerRange | null {
    const scale = this.study.scales.find((s) => s.id === name);
    if (!scale) return this.codebookRow(name).range;
    const ranges = scale.items.map((item) => this.possible(item.variable));
    if (scoredOverSample(scale) || ranges.some((range) => range === null)) return null;
    const weights = scale.items.map((item) => (scale.rule === "weighted" ? item.weight : scale.rule === "sum" ? 1 : 1 / ranges.length));
    const end = (which: "low" | "high", other: "low" | "high") =>
      ranges.reduce((sum, range, i) => sum + weights[i]! * range![weights[i]! < 0 ? other : which], 0);
    const range = { low: end("low", "high"), high: end("high", "low") };
    return range.low < range.high ? range : null;
  }

  /** A variable, or the score of a scale, by the name terms use. @throws MissingColumnError, UndeclaredRangeError */
  numbers(name: string): NumericColumn {
    const scale = this.study.scales.find((s) => s.id === name);
    if (!scale) return this.variable(name);
    const scores = () =>
      this.shelved(
        "scores",
        name,
        () => this.scale(scale).scores,
        (made) => made.values.length,
      );
    return this.once(this.scores, name, scores);
  }

  /** 1 where a respondent passes a filter of the study. @throws what its inputs throw */
  passes(filter: Pick<RespondentFilter, "id" | "conditions">, rows: number): Uint8Array {
    return this.once(this.masks, filter.id, () =>
      keptRows(filter, { ...this.inputs(rows), answered: (name) => this.answered(name), written: (name) => this.written(name) }),
    );
  }

  /** Values that conditions name and no cell has. @throws MissingColumnError */
  unmet(conditions: readonly Condition[]): string[] {
    return unmetValues(conditions, (name) => this.written(name));
  }

  /** The filters that hold everywhere, then the one named, if any. */
  filtersFor(id: string | null): RespondentFilter[] {
    const all = this.study.filters ?? [];
    return [...all.filter((f) => f.everywhere), ...all.filter((f) => !f.everywhere && f.id === id)];
  }

  /** 1 where a respondent passes every filter that holds everywhere, and the one named. @throws what their inputs throw */
  kept(rows: number, id: string | null = null): Uint8Array {
    const kept = new Uint8Array(rows).fill(1);
    for (const filter of this.filtersFor(id)) this.passes(filter, rows).forEach((pass, row) => pass || (kept[row] = 0));
    return kept;
  }

  codebookRow(name: string): Variable {
    return byName(this.study.codebook, name) ?? Variable.parse({ name });
  }

  private recipeOf(name: string) {
    return byName(this.study.derived ?? [], name)?.recipe;
  }

  /** The column as the file has it. @throws MissingColumnError */
  imported(name: string): ResponseColumn {
    const column = this.responses(name);
    if (!column) throw new MissingColumnError({ column: name });
    return column;
  }

  private derivation(name: string): Derivation {
    return this.once(this.derivations, name, () =>
      this.shelved(
        "derivation",
        name,
        () => this.unlessCircle(name, () => this.carryOut(name)),
        (made) => made.facts.rows,
      ),
    );
  }

  /** As kept from an earlier job, if everything it depends on is the same. */
  private shelved<T>(what: string, name: string, make: () => T, cells: (made: T) => number): T {
    if (!this.cache) return make();
    const key = `${what} ${columnKey(this.study, name)}`;
    const known = this.cache.get(key) as T | undefined;
    if (known !== undefined) return known;
    const made = make();
    this.cache.set(key, made, cells(made));
    return made;
  }

  private unlessCircle<T>(name: string, work: () => T): T {
    if (this.working.has(name)) throw new CircleError({ variable: name });
    this.working.add(name);
    try {
      return work();
    } finally {
      this.working.delete(name);
    }
  }

  private carryOut(name: string): Derivation {
    const recipe = this.recipeOf(name)!;
    const any = [...namesBehind({ ...this.study, filters: [] }, [name])].find((n) => !this.recipeOf(n) && this.responses(n));
    // a formula of numbers alone stands on no column: it is as long as the data are
    const rows = any === undefined ? this.rowsOfAnyColumn() : this.responses(any)!.values.length;
    const { column, facts } = derive(name, recipe, { ...this.inputs(rows), kept: () => this.kept(rows), ladder: this });
    const decimal = any === undefined ? undefined : this.responses(any)!.decimal;
    return { column: decimal ? { ...column, decimal } : column, facts };
  }

  /** Rows of the data. */
  rowsOfAnyColumn(): number {
    for (const { name } of this.study.codebook) {
      const column = this.recipeOf(name) ? undefined : this.responses(name);
      if (column) return column.values.length;
    }
    return 0;
  }

  private inputs(rows: number) {
    return {
      rows,
      numbers: (name: string) => (this.exists(name) ? this.numbers(name) : null),
      numbersOf: (name: string) => this.numbers(name),
      categories: (name: string) => this.categories(name),
      isWords: (name: string) => this.isWords(name),
    };
  }

  private exists(name: string): boolean {
    return byName(this.study.codebook, name) !== undefined || this.study.scales.some((s) => s.id === name);
  }

  private isWords(name: string): boolean {
    const row = byName(this.study.codebook, name);
    return row !== undefined && WORDS.has(row.kind);
  }

  /** Answers as written, with missing codes as answers like others. */
  private written(name: string): CategoryColumn {
    return readCategories(this.column(name), { missing: [], levels: [] });
  }

  private once<T>(known: Map<string, T>, name: string, make: () => T): T {
    const found = known.get(name);
    if (found !== undefined) return found;
    const made = make();
    known.set(name, made);
    return made;
  }
}

/** Everything a column depends on, as text: two studies in which it is the same give the same column. */
function columnKey(study: StudyContext, name: string): string {
  const behind = namesBehind(study, [name]);
  return JSON.stringify([
    name,
    (study.derived ?? []).filter((d) => behind.has(d.name)),
    study.scales.filter((s) => behind.has(s.id)),
    study.codebook
      .filter((v) => behind.has(v.name))
      .map(({ name: of, kind, range, missing, levels }) => [of, kind, range, missing, levels]),
    (study.corrections ?? []).filter((c) => behind.has(c.variable)),
    (study.readings ?? []).flatMap((r) => {
      const variables = r.variables.filter((of) => behind.has(of));
      return variables.length === 0 ? [] : [{ variables, rule: r.rule }];
    }),
    (study.filters ?? []).filter((f) => f.everywhere || filtersBehind(study, behind).includes(f.id)).map((f) => f.conditions),
  ]);
}
