import { median } from "d3-array";
import type { Analysis } from "../../kinds/kind";
import { answerKey } from "../../model/reading";
import type { RespondentFilter } from "../../model/respondent-filter";
import type { RespondentScreens } from "../../model/respondent-screens";
import type { StudyColumns } from "../../prepare/study-columns";
import { nothingAnswered, sameAnswers, sameCode, straightLines } from "./check-respondents";
import type { Finding } from "./findings";

/** What tells a respondent who did not take part in earnest: who they are, and by which bound. Rows from 1, those left out of the study already not among them. */
export type Screen =
  | { kind: "progress"; variable: string; below: number; rows: number[] }
  /** `median` and `below` in the variable's own unit. */
  | { kind: "duration"; variable: string; below: number; median: number; rows: number[] }
  | { kind: "finished"; variable: string; given: string[]; rows: number[] }
  | { kind: "consent"; variable: string; given: string[]; refused: { value: string; count: number }[]; rows: number[] }
  | { kind: "preview"; variable: string; values: { value: string; count: number }[]; rows: number[] }
  | { kind: "attention"; variable: string; asked: string; others: { value: string; count: number }[]; rows: number[] }
  | { kind: "finding"; finding: Finding; rows: number[] };

export interface Seriousness {
  rows: number;
  /** The filters that hold everywhere, in their order: how many each leaves out whom none before has left out. */
  flow: { name: string; reason: string; leftOut: number }[];
  kept: number;
  screens: Screen[];
}

/** Words by which people agree to take part. */
const GIVEN =
  /^(yes|y|true|1|agreed?|accept(ed)?|given|i (do )?(agree|consent|accept)\b.*|yes[,.:; ].*|ja|ja[,.:; ].*|ich (stimme zu|willige ein|bin einverstanden).*|einverstanden|zugestimmt|oui|oui[,.:; ].*|j'accepte.*|sí|si|sí[,.:; ].*|acepto.*|sim|sim[,.:; ].*|concordo|aceito.*|sì|acconsento.*|accetto.*|tak|tak[,.:; ].*|zgadzam się.*|evet|kabul ediyorum.*|ya|setuju|saya (bersetuju|setuju).*)$/iu;
/** Responses that nobody gave in earnest, as a column of their kind calls them. */
const NOT_REAL = /preview|test|spam|vorschau|probe|prueba|essai|aperçu|trial|pilot/iu;

/** Looks at every respondent by what the file tells of how they answered. */
export function seriousness(spec: RespondentScreens, columns: StudyColumns, rows: number): Seriousness {
  const kept = new Uint8Array(rows).fill(1);
  const flow = columns.filtersFor(null).map((filter: RespondentFilter) => {
    let leftOut = 0;
    columns.passes(filter, rows).forEach((passes, row) => {
      if (passes || !kept[row]) return;
      kept[row] = 0;
      leftOut++;
    });
    return { name: filter.name, reason: filter.reason, leftOut };
  });
  const screens = [...spec.roles.flatMap((role) => screenBy(role, columns)), ...asFindings(spec, columns, rows)].flatMap(
    (screen): Screen[] => {
      const still = screen.rows.filter((row) => kept[row - 1] === 1);
      if (screen.kind !== "finding") return [{ ...screen, rows: still }];
      const groups = screen.finding.groups.map((group) => group.filter((row) => kept[row - 1] === 1)).filter((group) => group.length > 1);
      const found = screen.finding.groups.length > 0 ? groups.flatMap((group) => group.slice(1)).sort((a, b) => a - b) : still;
      return found.length === 0
        ? []
        : [{ ...screen, rows: found, finding: { ...screen.finding, groups, rows: found, count: found.length } }];
    },
  );
  return { rows, flow, kept: kept.reduce((sum, one) => sum + one, 0), screens };
}

function screenBy(role: RespondentScreens["roles"][number], columns: StudyColumns): Screen[] {
  const { variable } = role;
  if (role.is === "progress" || role.is === "duration") {
    const { values, missing } = columns.numbers(variable);
    const there = values.filter((_, row) => !missing[row]);
    if (there.length === 0) return [];
    const middle = median(there)!;
    const most = there.reduce((a, b) => Math.max(a, b));
    // done is what most have reached: 100, or 1 where it is a share
    const usual = role.is === "progress" ? most : middle / 3;
    const below = role.below ?? Number(usual.toPrecision(2));
    const found = rowsWhere(values.length, (row) => !missing[row] && values[row]! < below);
    return role.is === "progress" ? [{ kind: "progress", variable, below, rows: found }] : [{ kind: "duration", variable, below, median: middle, rows: found }]; // prettier-ignore
  }
  const { levels, codes, missing } = columns.categories(variable);
  const labels = new Map(columns.codebookRow(variable).levels.map((level) => [level.value, level.label || level.value]));
  const wordsOf = (level: string) => labels.get(level) ?? level;
  const counts = levels.map(() => 0);
  codes.forEach((code, row) => missing[row] || counts[code]!++);
  const some = (test: (level: string) => boolean) =>
    levels.flatMap((value, at) => (counts[at]! > 0 && test(value) ? [{ value, count: counts[at]! }] : []));
  if (role.is === "preview") {
    const values = some((level) => NOT_REAL.test(wordsOf(level)));
    const out = new Set(values.map(({ value }) => value));
    return values.length === 0 ? [] : [{ kind: "preview", variable, values, rows: rowsWhere(codes.length, (row) => !missing[row] && out.has(levels[codes[row]!]!)) }]; // prettier-ignore
  }
  if (role.is === "consent" || role.is === "finished") {
    const given = some((level) => GIVEN.test(wordsOf(level).trim())).map(({ value }) => value);
    const refused = some((level) => !given.includes(level));
    if (given.length === 0) return []; // it cannot be told which answer says yes
    if (role.is === "finished") return [{ kind: "finished", variable, given, rows: rowsWhere(codes.length, (row) => !missing[row] && !given.includes(levels[codes[row]!]!)) }]; // prettier-ignore
    return [{ kind: "consent", variable, given, refused, rows: rowsWhere(codes.length, (row) => missing[row] === 1 || !given.includes(levels[codes[row]!]!)) }]; // prettier-ignore
  }
  const wanted = answerKey(role.asked!);
  const right = new Set(levels.filter((level) => answerKey(level) === wanted || answerKey(wordsOf(level)) === wanted));
  const others = some((level) => !right.has(level));
  // where nobody chose it, it is written otherwise than it was asked for: nothing can be told
  if (some((level) => right.has(level)).length === 0) return [];
  return [{ kind: "attention", variable, asked: role.asked!, others, rows: rowsWhere(codes.length, (row) => !missing[row] && !right.has(levels[codes[row]!]!)) }]; // prettier-ignore
}

function rowsWhere(rows: number, test: (row: number) => boolean): number[] {
  const found: number[] = [];
  for (let row = 0; row < rows; row++) if (test(row)) found.push(row + 1);
  return found;
}

function asFindings({ file, straight }: RespondentScreens, columns: StudyColumns, rows: number): Screen[] {
  const variables = file.map((name) => columns.codebookRow(name));
  const answers = variables.filter((v) => v.kind !== "code");
  const byCode = variables.filter((v) => v.kind === "code").flatMap((v) => sameCode(v, columns));
  const found = [
    ...byCode,
    ...sameAnswers(answers, columns, rows, byCode),
    ...straightLines(variables, columns, rows, straight),
    ...nothingAnswered(answers, columns, rows),
  ];
  return found.map((finding) => ({ kind: "finding" as const, finding, rows: finding.rows }));
}

export const analysis: Analysis<unknown, RespondentScreens, Seriousness> = {
  run: (spec, { columns, rows }) => seriousness(spec, columns, rows),
};
