import type { CodingTable } from "@/core/regression/categories";
import { counted, listed } from "../format-number";
import type { LadderFix, LadderWatch } from "./ladder-fix";
import type { WatchInput } from "./watch-input";
import { fixesAt } from "./term-place";

/** A level with fewer respondents has an uncertain coefficient. */
const FEW = 10;

/** Levels that nobody has, or few. */
export function categoryWatches(input: WatchInput): LadderWatch[] {
  return input.result.fit.tables.flatMap((table) => watchesOf(table, input));
}

function watchesOf(table: CodingTable, { study, ladder, title }: WatchInput): LadderWatch[] {
  const { variable } = table;
  const name = title(variable);
  const words = (level: string) => title(variable, level);
  const declared = study.codebook.find((v) => v.name === variable)?.levels.map((l) => l.value) ?? [];
  const watches: LadderWatch[] = [];
  if (table.levels.length < 2) {
    watches.push({
      id: `one level ${variable}`,
      words: `Everyone in the sample has ${words(table.reference)}, so ${name} was left out.`,
      fixes: fixesAt("remove-term", ladder, variable),
    });
  }
  if (table.empty.length > 0) {
    const levels = table.empty.filter((level) => declared.includes(level));
    watches.push({
      id: `empty ${variable}`,
      words: `Nobody in the sample has ${listed(table.empty.map(words))}, which therefore has no column.`,
      fixes: levels.length > 0 && levels.length < declared.length ? [{ do: "drop-level", variable, levels: [...levels] }] : [],
    });
  }
  if (table.replacedReference !== null) {
    watches.push({
      id: `reference ${variable}`,
      words: `Nobody in the sample has ${words(table.replacedReference)}, the chosen reference: the levels are compared with ${words(table.reference)}.`,
      fixes: [{ do: "reference", variable, reference: table.reference }],
    });
  }
  const small = table.levels.filter((level) => level.cases < FEW);
  if (small.length === 0 || table.levels.length < 2) return watches;
  const free = ladder.respondents === null;
  const remedy: LadderFix[] =
    small.length > 1 && small.length < table.levels.length
      ? [{ do: "combine-levels", variable, levels: small.map((l) => l.level) }]
      : free && small.length === 1
        ? [{ do: "leave-out-level", variable, level: small[0]!.level }]
        : [];
  const alone = small.length === 1 && small[0]!.cases === 1;
  watches.push({
    id: `small ${variable}`,
    words: alone
      ? `A single respondent has ${words(small[0]!.level)}: its coefficient fits that one answer.`
      : `Few respondents have ${listed(small.map((l) => `${words(l.level)} (${counted(l.cases, "respondent")})`))}: what is said of ${small.length === 1 ? "it" : "them"} is uncertain.`,
    fixes: remedy,
  });
  return watches;
}
