import type { Edit } from "../model/edit";
import type { Reading } from "../model/reading";
import type { Study } from "../model/study";
import type { VariableKind } from "../model/variable";
import { counted, formatPlain, listed } from "./format-number";
import { runWords, takeReadingBack } from "./open-words";

/** Something that is understood of a file, in a sentence; a reading can be changed and taken back. */
export interface UnderstoodLine {
  key: string;
  words: string;
  reading?: Reading;
  takeBack?: Edit[];
}

const KINDS: Record<VariableKind, readonly [string, string]> = {
  item: ["scale item", "scale items"],
  number: ["number", "numbers"],
  category: ["category", "categories"],
  date: ["date", "dates"],
  text: ["text", "texts"],
  code: ["respondents’ code", "respondents’ codes"],
};

/** What a study knows of the columns of its file. */
export function understoodWords(study: Study): UnderstoodLine[] {
  const made = new Set(study.derived.map((d) => d.name));
  const file = study.codebook.filter((v) => !made.has(v.name));
  const kinds = (Object.keys(KINDS) as VariableKind[]).flatMap((kind) => {
    const count = file.filter((v) => v.kind === kind).length;
    return count === 0 ? [] : [counted(count, ...KINDS[kind])];
  });
  const worded = file.filter((v) => v.label !== "").length;
  const questions = new Set(file.flatMap((v) => (v.question === "" ? [] : [v.question]))).size;
  const wordings =
    worded === 0
      ? ""
      : ` ${worded === file.length ? "All have" : `${counted(worded, "has", "have")}`} a wording${questions === 0 ? "" : `; ${counted(questions, "question asks", "questions ask")} several items`}.`;
  const lines: UnderstoodLine[] = [{ key: "columns", words: `${counted(file.length, "column")}: ${listed(kinds)}.${wordings}` }];
  for (const reading of study.readings) {
    const who = runWords(reading.variables);
    const { rule } = reading;
    const words =
      rule.kind === "words"
        ? `${reading.name}: ${who} ${reading.variables.length === 1 ? "is" : "are"} read as ${[...rule.values]
            .sort((a, b) => a.value - b.value)
            .map((one) => `${one.written} ${formatPlain(one.value)}`)
            .join(", ")}.`
        : `${who}: numbers are read from words${rule.unit === "" ? "" : `, in ${rule.unit}`}.`;
    lines.push({ key: `reading ${reading.id}`, words, reading, takeBack: takeReadingBack(reading, study) });
  }
  const items = file.filter((v) => v.kind === "item");
  const ranged = items.filter((v) => v.range !== null).length;
  if (ranged > 0)
    lines.push({
      key: "ranges",
      words: `${ranged === items.length ? `All ${counted(ranged, "scale item")}` : `${ranged} of ${counted(items.length, "scale item")}`} ${ranged === 1 && items.length === 1 ? "has" : "have"} a declared range.`,
    });
  if (study.scales.length > 0) lines.push({ key: "scales", words: `${counted(study.scales.length, "scale")}: ${listed(study.scales.slice(0, 8).map((s) => s.name))}${study.scales.length > 8 ? " …" : ""}.` }); // prettier-ignore
  return lines;
}
