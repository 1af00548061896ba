import type { FirstLook, LookColumn } from "../analyse/analyse-look";
import type { PairLook, Parting } from "../analyse/analyse-pair";
import { counted, formatNumber, formatPercent, formatShare, formatValue, listed } from "./format-number";
import { levelTitle, type Titles } from "./level-title";
import { refusalWords } from "./refusals";
import { SYMBOL, type Words, words } from "./words";

export type Looked = Extract<FirstLook, { status: "looked" }>;
export type Paired = Extract<PairLook, { status: "paired" }>;

/** Two predictors that go together so closely may be one. */
const CLOSE = 0.8;
/** Share at one end of the possible answers. */
const CROWDED = 0.15;
const MOST = 6;

export const columnName = ({ variable, level }: Pick<LookColumn, "variable" | "level">, title: Titles): string => title(variable, level);

/** What a table says at a glance. */
export function whatTheLookSays(look: Looked, title: Titles): Words[] {
  const { columns, table, correlation } = look;
  const k = columns.length;
  if (k === 0) return [];
  const symbol = correlation === "pearson" ? SYMBOL.r : "ρ";
  const pairs = columns.flatMap((_, i) => columns.slice(0, i).map((__, j) => ({ i, j, r: table.r[i * k + j]! }))).filter(({ r, i, j }) => !Number.isNaN(r) && columns[i]!.variable !== columns[j]!.variable); // prettier-ignore
  if (pairs.length === 0) return [`${counted(look.rows, "respondent")}.`];
  const strongest = pairs.reduce((a, b) => (Math.abs(b.r) > Math.abs(a.r) ? b : a));
  const sizes = pairs.map(({ r }) => Math.abs(r)).sort((a, b) => a - b);
  return [
    words`${columnName(columns[strongest.j]!, title)} and ${columnName(columns[strongest.i]!, title)} go together most (${symbol} = ${formatShare(strongest.r)}); half of the ${pairs.length} correlations are below ${formatShare(sizes[Math.floor(sizes.length / 2)]!)} in size.`,
  ];
}

/** What the eye might miss in a table. */
export function lookWatches(look: Looked, outcomes: ReadonlySet<string>, title: Titles): { id: string; words: Words }[] {
  const { columns, table, groups } = look;
  const k = columns.length;
  const name = (c: LookColumn) => columnName(c, title);
  const close = columns.flatMap((a, i) => columns.slice(0, i).flatMap((b, j) => (Math.abs(table.r[i * k + j]!) > CLOSE && a.variable !== b.variable && !outcomes.has(a.variable) && !outcomes.has(b.variable) ? [{ a, b, r: table.r[i * k + j]! }] : []))); // prettier-ignore
  const watches: { id: string; words: Words }[] = close.slice(0, MOST).map(({ a, b, r }) => ({
    id: `close ${a.key} ${b.key}`,
    words: words`${name(b)} and ${name(a)} correlate at ${formatShare(r)}: in one step neither can be told from the other. Are they one thing?`,
  }));
  for (const c of columns) {
    const { description: d } = c;
    if (c.impossible > 0)
      watches.push({ id: `impossible ${c.key}`, words: `${name(c)} holds ${counted(c.impossible, "value")} beyond what is possible (${formatValue(c.possible!.low)} to ${formatValue(c.possible!.high)}).` }); // prettier-ignore
    if (d.n === 0) watches.push({ id: `empty ${c.key}`, words: `Nobody here has a value of ${name(c)}.` });
    else if (d.n > 1 && d.min === d.max) watches.push({ id: `constant ${c.key}`, words: `${name(c)} is ${formatValue(d.min)} for everyone: it goes with nothing.` }); // prettier-ignore
    if (c.level !== null || d.min === d.max || d.n < 20) continue;
    const many = c.shape?.kind === "bins" || (c.shape?.kind === "values" && c.shape.values.length > 2);
    if (many && c.ceiling >= CROWDED) watches.push({ id: `ceiling ${c.key}`, words: `${formatPercent(c.ceiling)} have the highest ${c.possible ? "possible" : "observed"} value of ${name(c)}: differences above it are not seen.` }); // prettier-ignore
    if (many && c.floor >= CROWDED) watches.push({ id: `floor ${c.key}`, words: `${formatPercent(c.floor)} have the lowest ${c.possible ? "possible" : "observed"} value of ${name(c)}.` }); // prettier-ignore
    if (c.shape?.kind === "bins" && c.shape.heaps > 1) watches.push({ id: `heaps ${c.key}`, words: `${name(c)} lies in ${c.shape.heaps} heaps: are there two kinds of respondents?` }); // prettier-ignore
  }
  for (const { variable, refusal } of look.refused) {
    const { what, remedy } = refusalWords(refusal, title);
    watches.push({ id: `refused ${variable}`, words: `${title(variable)}: ${what} ${remedy}` });
  }
  if (look.groupsRefused) {
    const { what, remedy } = refusalWords(look.groupsRefused, title);
    watches.push({ id: "groups", words: `${what} ${remedy}` });
  }
  if (look.without > 0) watches.push({ id: "without", words: `${counted(look.without, "respondent")} in no group.` });
  const small = groups.filter((g) => g.rows < 10);
  if (small.length > 0) watches.push({ id: "small", words: `Few respondents: ${listed(small.map((g) => `${g.level} (${g.rows})`))}.` });
  return watches;
}

/** A part of a parting as it is named: a level; `Tutor support 2.4 to 3.1`. */
export function partName({ variable, parts }: Parting, part: number, title: Titles): string {
  const one = parts[part]!;
  if ("level" in one) return levelTitle(title, variable, one.level);
  const { from, to } = one;
  if (from === null) return to === null ? `all ${title(variable)}` : `${title(variable)} up to ${formatValue(to)}`;
  return to === null ? `${title(variable)} above ${formatValue(from)}` : `${title(variable)} ${formatValue(from)} to ${formatValue(to)}`;
}

/** What a scatter says, and what the eye might miss in it. */
export function whatThePairSays({ x, y }: { x: string; y: string }, found: Paired, title: Titles): Words[] {
  const { whole, facts } = found;
  const [one, other] = [title(x), title(y)];
  if (!whole.line || !whole.test)
    return [found.x.length < 2 ? `${counted(found.x.length, "respondent")} with both: nothing can be drawn.` : `${one} or ${other} does not vary here.`]; // prettier-ignore
  const { line, test } = whole;
  const p = test.p === null ? "" : words`, ${SYMBOL.p} ${test.p < 0.001 ? "< .001" : `= ${formatShare(test.p, 3)}`}`;
  const said: Words[] = [
    words`For one more of ${one}, ${other} is ${line.slope < 0 ? "lower" : "higher"} by ${formatNumber(Math.abs(line.slope))} (${SYMBOL.r} = ${formatShare(test.r)}${test.lower === null ? "" : ` [${formatShare(test.lower)}, ${formatShare(test.upper)}]`}${p}, ${SYMBOL.N} = ${test.n}); the line is ${formatNumber(line.intercept)} ${line.slope < 0 ? "−" : "+"} ${formatNumber(Math.abs(line.slope))} · ${one}.`,
  ];
  if (facts.bent !== null) said.push(`The smooth leaves the band of the line over ${formatPercent(facts.bent)} of the range of ${one}: the relation is bent. A square of ${one} may be wanted.`); // prettier-ignore
  if (facts.spread !== null) said.push(`${other} spreads ${facts.spread.high > facts.spread.low ? "wider" : "less"} where ${one} is high (SD about the line ${formatNumber(facts.spread.high)}, ${formatNumber(facts.spread.low)} where it is low): HC3 errors allow for that.`); // prettier-ignore
  if (facts.carrying !== null)
    said.push(words`Row ${found.rows[facts.carrying.at]!} alone moves ${SYMBOL.r} from ${formatShare(facts.carrying.without)} to ${formatShare(facts.carrying.r)}.`); // prettier-ignore
  const slopes = found.fits.flatMap(({ fit }) => (fit.line ? [fit.line.slope] : []));
  if (slopes.length > 1)
    said.push(`Slopes go from ${formatNumber(Math.min(...slopes))} to ${formatNumber(Math.max(...slopes))}; whether they differ is asked of a ladder.`); // prettier-ignore
  const lost = [...(found.by ? [found.by] : []), ...found.panels].map(({ variable, codes }) => ({ variable, count: codes.reduce((sum, c) => sum + (c < 0 ? 1 : 0), 0) })).filter((l) => l.count > 0); // prettier-ignore
  if (lost.length > 0) said.push(`${listed(lost.map((l) => `${counted(l.count, "respondent")} without ${title(l.variable)}`))} ${lost.length === 1 && lost[0]!.count === 1 ? "is" : "are"} in none of its parts.`); // prettier-ignore
  return said;
}
