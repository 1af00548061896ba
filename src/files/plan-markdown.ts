import { activeTerms } from "@/study/model/ladder";
import { codesOf } from "@/study/model/hypothesis";
import type { Plan } from "@/study/model/plan";
import { titleOf } from "@/study/model/study";
import type { PrintTable } from "@/study/report/print-table";
import { formatLevel, formatPercent, formatPlain, formatShare } from "@/study/report/format-number";
import { conditionWords } from "@/study/report/recipe-words";
import { filterWords } from "@/study/report/sample-words";
import { EXPECTATIONS, expectationOf, hypothesisSentence, restsWords } from "@/study/report/theory/hypothesis-words";
import { words, type Words } from "@/study/report/words";
import { tableAsMarkdown, wordsAsMarkdown } from "./markdown";

/** A plan as a text that others can check: what is expected, on which numbers it rests, and from whom and what these will come. */
export function planMarkdown(study: string, plan: Plan): string {
  const { document } = plan;
  const title = (name: string, level?: string | null) => titleOf(document, name, level);
  const { alpha, holm, delta } = document.theory;
  const codes = codesOf(document.hypotheses);
  const bullet = (text: Words) => `- ${wordsAsMarkdown(text)}`;
  const section = (heading: string, lines: readonly string[]) => (lines.length === 0 ? [] : [`## ${heading}`, "", ...lines, ""]);
  const hypotheses: PrintTable = {
    title: "Hypotheses",
    head: ["Code", "Hypothesis", "Rests on", "Expected", "Smallest effect"],
    sections: [
      {
        heading: "",
        rows: document.hypotheses.map((h, k) => [
          codes[k]!,
          hypothesisSentence(h, document.ladders, title),
          restsWords(h, document.ladders, title),
          EXPECTATIONS[expectationOf(h)],
          h.delta === null ? "as for all" : formatPlain(h.delta),
        ]),
      },
    ],
    note: `α = ${formatLevel(alpha)}${holm ? ", Holm over the family" : ", each by itself"}${delta > 0 ? `; below |β| = ${formatShare(delta)} nothing would matter` : ""}. Tests are one-sided where a direction is stated here.`,
  };
  const ladders = document.ladders.flatMap((l) => [
    `### ${wordsAsMarkdown(l.name)}`,
    "",
    bullet(`Outcome: ${l.outcome === null ? "open" : title(l.outcome)}`),
    ...l.steps.map((step, k) => bullet(`Step ${k + 1}${step.name === "" ? "" : `, ${step.name}`}: ${activeTerms(step).map(({ components }) => components.map((name) => title(name)).join(" × ")).join(", ") || "nothing"}`)), // prettier-ignore
    bullet(`Among ${filterWords(document, l.filter, l.respondents)}, with complete answers`),
    bullet(`${l.cluster === null ? (l.errors === "hc3" ? "HC3" : "Classical") : `Cluster-robust (${title(l.cluster)})`} errors, ${formatPercent(l.confidence)} intervals by ${l.intervals.by === "normal" ? "normal theory" : `bootstrap (${l.intervals.by === "bca" ? "BCa" : "percentile"}, ${l.intervals.replicates} replicates, seed ${l.seed})`}`), // prettier-ignore
    "",
  ]);
  const powers = document.powers.flatMap((p) => {
    const at = document.hypotheses.findIndex((h) => h.id === p.hypothesis);
    return at < 0 || p.n === null ? [] : [bullet(`${codes[at]!}: ${p.n} respondents, for a power of ${formatShare(p.power)}`)];
  });
  return [
    `# Plan: ${wordsAsMarkdown(study)}`,
    "",
    `Fixed ${plan.at}, ${plan.rows === 0 ? "before there were any answers" : `when ${plan.rows} rows of answers were there`}.`,
    "",
    `SHA-256 ${plan.sha256}`,
    "",
    ...section("Hypotheses", [tableAsMarkdown(hypotheses)]),
    ...section("Respondents", [...document.filters.map((f) => bullet(`${f.name}: keeps those ${f.conditions.map((c) => conditionWords(c, title)).join("; ")}`)), ...powers]), // prettier-ignore
    ...section("Scales", document.scales.map((s) => bullet(words`${s.name} (${s.rule} of ${s.items.length}, at least ${formatPercent(s.answeredShare)} answered): ${s.items.map((i) => `${i.variable}${i.reversed ? " reversed" : ""}`).join(", ")}`))), // prettier-ignore
    ...section("Ladders", ladders),
    ...section("Variables", document.codebook.map((v) => bullet(`${v.name}: ${v.label || "no wording"}, ${v.kind}${v.range ? `, ${v.range.low} to ${v.range.high}` : ""}${v.levels.length > 0 ? `, ${v.levels.map((l) => l.label || l.value).join(" / ")}` : ""}`))), // prettier-ignore
  ].join("\n");
}
