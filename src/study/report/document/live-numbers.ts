import type { Estimate } from "@/core/regression/coefficients";
import { codesOf } from "../../model/hypothesis";
import { decimalsFor, formatCount, formatInterval, formatMean, formatNumber, formatP, formatPercent, formatShare, fStatement, listed, pStatement } from "../format-number"; // prettier-ignore
import { columnTitle } from "../ladder/coefficient-words";
import { cellName } from "../ladder/means-words";
import { probeRows } from "../ladder/probe-rows";
import { correlationAt } from "../../analyse/analyse-look";
import { columnName } from "../look-words";
import { evidenceWords } from "../theory/verdict-words";
import { R2, DELTA_R2, SYMBOL, type Words, words } from "../words";
import { fittedLadder, probedStep, type Source, toldMeans } from "./source";

/** A number of the study that prose can hold: by name, and as it reads now. */
export interface LiveNumber {
  /** Stays when the study changes: `ladder|willingness|step|s2|R2`. */
  readonly key: string;
  /** `β of Speaking confidence, step 2, Willingness to speak`. */
  readonly name: string;
  readonly words: Words;
}

/** Every number that can be put into prose, each result of the study by its own name. */
export function liveNumbers(source: Source): LiveNumber[] {
  const { study, title, scales, stands, look } = source;
  const all: LiveNumber[] = [];
  const add = (key: (string | number)[], name: string, said: Words) => all.push({ key: key.join("|"), name, words: said });
  if (study.responses) add(["respondents"], "respondents of the file", formatCount(study.responses.rows));
  for (const scale of study.scales) {
    const found = scales.get(scale.id);
    if (found?.status !== "scored") continue;
    const { reliability, description } = found.analysis;
    const own = (what: string) => ["scale", scale.id, what];
    if (reliability.alpha?.alpha != null) add(own("alpha"), `α of ${scale.name}`, formatShare(reliability.alpha.alpha));
    if (reliability.factor) add(own("omega"), `ω of ${scale.name}`, formatShare(reliability.factor.omega));
    add(own("mean"), `mean of ${scale.name}`, formatMean(description.mean, description.sd));
    add(own("sd"), `SD of ${scale.name}`, formatNumber(description.sd));
    add(own("n"), `respondents with a score of ${scale.name}`, formatCount(description.n));
  }
  for (const ladder of study.ladders) ladderNumbers(source, ladder.id, add);
  for (const probe of study.probes) probeNumbers(source, probe.id, add);
  for (const means of study.means) meansNumbers(source, means.id, add);
  const codes = codesOf(study.hypotheses);
  study.hypotheses.forEach((h, k) => {
    const stand = stands.get(h.id);
    if (!stand) return;
    const evidence = evidenceWords(stand, h);
    if (evidence !== "") add(["hypothesis", h.id, "evidence"], `evidence of ${codes[k]!}`, evidence);
    add(["hypothesis", h.id, "verdict"], `verdict of ${codes[k]!}`, stand.verdict);
  });
  if (look) {
    const { columns, table } = look.found;
    columns.forEach((a, i) =>
      columns.slice(0, i).forEach((b, j) => {
        const test = correlationAt(table, i, j, 0);
        if (!test) return;
        const name = `r of ${columnName(b, title)} and ${columnName(a, title)}`;
        add(["r", ...[a.key, b.key].sort()], name, formatShare(test.r));
      }),
    );
  }
  return all;
}

type Add = (key: (string | number)[], name: string, said: Words) => void;

/** `0.28, 95 % CI [0.13, 0.42], p = .021`, and the value alone. */
function told(e: Estimate, p: number | null, percent: string, print: (v: number | null) => string): Words {
  return words`${print(e.estimate)}${e.lower === null ? "" : `, ${percent} ${formatInterval(e.lower, e.upper, print)}`}, ${pStatement(p)}`;
}

function probeNumbers(source: Source, id: string, add: Add): void {
  const probed = probedStep(source, id);
  if (!probed) return;
  const { probe, reading, result, ladder } = probed;
  const of = `${source.title(probe.focal)} by ${listed(probe.moderators.map((m) => source.title(m.variable)))}, ${ladder.name}`;
  const percent = `${formatPercent(result.ground.confidence)} CI`;
  for (const { kind, place, effect, found } of probeRows(reading, result, source.title)) {
    if (!found) continue;
    const print = (v: number | null) => (probe.metric === "z" ? formatShare(v) : formatNumber(v, decimalsFor(found.se)));
    // without the value of the place, which moves with the answers
    const where = [place.replace(/, [−\d.]+$/, ""), effect].filter(Boolean).join(", ");
    const name = `${kind === "effect" ? "slope" : "difference of slopes"}, ${where}: ${of}`;
    add(["probe", id, kind, where], name, print(found.estimate));
    add(["probe", id, `${kind}-told`, where], `${name}, with interval and p`, told(found, found.p, percent, print));
  }
}

function meansNumbers(source: Source, id: string, add: Add): void {
  const found = toldMeans(source, id);
  if (!found) return;
  const { means, told: of, ladder } = found;
  const percent = `${formatPercent(of.ground.confidence)} CI`;
  for (const cell of of.reading.cells) {
    const e = cell.predicted;
    if (!e) continue;
    const print = (v: number | null) => formatNumber(v, decimalsFor(e.se));
    const name = `${source.title(of.ground.outcome)} predicted for ${source.title(means.variable)} ${cellName(cell, source.title)}, ${ladder.name}`;
    add(["means", id, cellName(cell, source.title)], name, `${print(e.estimate)}, ${percent} ${formatInterval(e.lower, e.upper, print)}`);
  }
}

function ladderNumbers(source: Source, id: string, add: Add): void {
  const fitted = fittedLadder(source, id);
  if (!fitted) return;
  const { ladder, fit } = fitted;
  const percent = `${formatPercent(ladder.confidence)} CI`;
  add(["ladder", id, "n"], `respondents of ${ladder.name}`, formatCount(fit.n));
  fit.steps.forEach((step, k) => {
    const { id: own, off } = ladder.steps[k]!;
    if (off) return;
    const at = (what: string, ...more: string[]) => ["ladder", id, "step", own, what, ...more];
    const where = `step ${k + 1}, ${ladder.name}`;
    add(at("R2"), `R² of ${where}`, formatShare(step.model.R2, 3));
    add(at("adjustedR2"), `adjusted R² of ${where}`, formatShare(step.model.adjustedR2, 3));
    add(at("dR2"), `ΔR² of ${where}`, formatShare(step.change.change, 3));
    if (step.change.F !== null) {
      const test = fStatement(step.change.F, step.change.df, step.change.p);
      add(at("F"), `F test of ${where}`, test);
      add(at("change"), `ΔR² with its test, ${where}`, words`${k === 0 ? R2 : DELTA_R2} = ${formatShare(step.change.change, 3)}, ${test}`);
    }
    for (const c of step.coefficients) {
      const name = columnTitle(c.column, fit, source.title);
      const raw = (v: number | null) => formatNumber(v, decimalsFor(c.b.se));
      if (c.beta) {
        const share = (v: number | null) => formatShare(v);
        add(at("beta", c.column), `β of ${name}, ${where}`, share(c.beta.estimate));
        add(at("beta-told", c.column), `β of ${name} with interval and p, ${where}`, words`β = ${told(c.beta, c.b.p, percent, share)}`);
      }
      add(at("b", c.column), `b of ${name}, ${where}`, raw(c.b.estimate));
      add(at("b-told", c.column), `b of ${name} with interval and p, ${where}`, words`${SYMBOL.b} = ${told(c.b, c.b.p, percent, raw)}`);
      add(at("se", c.column), `SE of b of ${name}, ${where}`, raw(c.b.se));
      add(at("p", c.column), `p of ${name}, ${where}`, formatP(c.b.p));
    }
  });
}
