import type { Estimate } from "@/core/regression/coefficients";
import type { EffectAlong, NoAlong } from "@/core/regression/simple-effects";
import { holm } from "@/core/distributions/holm";
import type { ProbeResult } from "../../analyse/analyse-probe";
import { cellKey } from "../../analyse/cell-key";
import { type ModeratorAt, type ProbePlace, type ProbeReading, regionShares } from "../../analyse/read-probe";
import type { Probe } from "../../model/probe";
import { counted, formatCount, formatNumber, formatP, formatShare, formatValue, listed } from "../format-number";
import { levelTitle, type Titles } from "../level-title";
import { SYMBOL, type Words, words } from "../words";
import { mediationSays } from "./mediation-words";

type Probed = Extract<ProbeResult, { status: "probed" }>;

const LABELS: Record<string, string> = {
  low: "low",
  mean: "mean",
  high: "high",
  p16: "16th percentile",
  p50: "median",
  p84: "84th percentile",
};

/** A place of one moderator: `low, 2.41`; `online`. */
export function moderatorPlaceWords({ variable, label, value }: ModeratorAt, title: Titles): string {
  if (value === null) return levelTitle(title, variable, label);
  return label in LABELS ? `${LABELS[label]}, ${formatNumber(value)}` : formatValue(value);
}

/** The same as it is named at the end of a line: `low`. */
export function moderatorPlaceName({ variable, label, value }: ModeratorAt, title: Titles): string {
  if (value === null) return levelTitle(title, variable, label);
  return LABELS[label] ?? formatValue(value);
}

/** All moderators of a place: `low`; `Tutor support low, Class format online`. */
export function placeName(place: ProbePlace, title: Titles): string {
  const [first] = place.at;
  if (place.at.length === 1) return moderatorPlaceName(first!, title);
  return place.at.map((at) => `${title(at.variable)} ${moderatorPlaceName(at, title)}`).join(", ");
}

/** What a probe says, in sentences: how the relation changes, and where it holds. Associations, never causes. */
export function whatTheProbeSays(probe: Probe, reading: ProbeReading, result: Probed, title: Titles): Words[] {
  if (reading.effects.length !== 1 || "level" in reading.effects[0]!)
    return [...categorySays(probe, reading, result, title), ...cellsSay(reading, result, title)];
  return [
    ...changeSays(probe, reading, result, title),
    ...regionsSay(probe, reading, result, title),
    ...outsideSays(reading, result, title),
    ...result.mediations.map((found) => mediationSays(found, title)),
  ];
}

/** How many of the outcome go with one more. */
function amount(e: Estimate, probe: Probe): string {
  const size = probe.metric === "z" ? formatShare(e.estimate) : formatNumber(e.estimate);
  return probe.metric === "z" ? `${size} SD` : size;
}

const told = (e: Estimate | null, level: number) => e?.p != null && e.p < level;

function changeSays(probe: Probe, reading: ProbeReading, { ground }: Probed, title: Titles): Words[] {
  const [focal, outcome] = [title(probe.focal), title(ground.outcome)];
  const alpha = 1 - ground.confidence;
  const slopes = reading.found.map((effects) => effects[0]!);
  if (slopes.some((slope) => slope === null))
    return [`The slope of ${focal} cannot be told everywhere: the sample does not hold what it would be told from.`];
  const at = (i: number) => reading.places[i]!;
  const signs = new Set(slopes.map((slope) => Math.sign(slope!.estimate)));
  const way = signs.size > 1 ? "differs by" : signs.has(-1) ? "is lower by" : "is higher by";
  const each = reading.places.map((place, i) => {
    const { estimate } = slopes[i]!;
    return `${amount({ ...slopes[i]!, estimate: signs.size > 1 ? estimate : Math.abs(estimate) }, probe)} where ${where(place, title)}`;
  });
  const one = probe.metric === "z" ? `one SD more ${focal}` : `one more of ${focal}`;
  const said: Words = `For ${one}, ${outcome} ${way} ${listed(each)}.`;
  if (probe.moderators.length > 1)
    return [reading.places.length > 3 ? extremes(probe, reading, title, one, way, signs.size > 1, outcome) : said];
  const { variable } = probe.moderators[0]!;
  const moderator = title(variable);
  if (at(0).at[0]!.value === null) return [levelsDiffer(probe, reading, alpha, focal, moderator, outcome, title), said];
  // from the lowest value to the highest, in whatever order a person has put them
  const byValue = reading.places.map((_, i) => i).sort((i, k) => at(i).at[0]!.value! - at(k).at[0]!.value!);
  const [first, last] = [byValue[0]!, byValue.at(-1)!];
  const difference = reading.differences.find((d) => d.first === Math.min(first, last) && d.second === Math.max(first, last))?.found[0];
  if (difference?.p == null) return [said];
  const change = first < last ? -difference.estimate : difference.estimate;
  const test = words`difference ${amount({ ...difference, estimate: change }, probe)}, ${pWords(difference.p)}`;
  const square = variable === probe.focal;
  if (!told(difference, alpha)) {
    const what = square ? `Whether the line of ${focal} bends` : `Whether ${moderator} changes how ${focal} goes with ${outcome}`;
    return [words`${what} cannot be told from these respondents (${test}).`, said];
  }
  const [a, b] = [slopes[first]!.estimate, slopes[last]!.estimate];
  if (square) return [words`The line of ${focal} bends: its slope ${b > a ? "rises" : "falls"} (${test}).`, said];
  const reversed = Math.sign(a) !== Math.sign(b) && told(slopes[first]!, alpha) && told(slopes[last]!, alpha);
  const verb = reversed ? "reverses" : Math.abs(b) > Math.abs(a) ? "strengthens" : "weakens";
  return [words`${moderator} ${verb} the relation (${test}).`, said];
}

function pWords(p: number): Words {
  const text = formatP(p);
  return words`${SYMBOL.p} ${text.startsWith("<") ? text : `= ${text}`}`;
}

/** Which levels differ in the slope, all pairs considered (Holm). */
function levelsDiffer(
  probe: Probe,
  reading: ProbeReading,
  alpha: number,
  focal: string,
  moderator: string,
  outcome: string,
  title: Titles,
): Words {
  const pairs = reading.differences.flatMap((d) => (d.found[0]?.p == null ? [] : [{ ...d, one: d.found[0], p: d.found[0].p }]));
  const adjusted = holm(pairs.map((d) => d.p));
  const least = pairs.map((d, i) => ({ ...d, holm: adjusted[i]! })).sort((a, b) => a.holm - b.holm || a.p - b.p)[0];
  if (!least) return "";
  const test = words`difference ${amount(least.one, probe)}, ${pWords(least.holm)}${pairs.length > 1 ? ` by Holm over ${pairs.length} pairs` : ""}`;
  const [first, second] = [placeName(reading.places[least.first]!, title), placeName(reading.places[least.second]!, title)];
  if (least.holm < alpha) return words`How ${focal} goes with ${outcome} differs most between ${first} and ${second} (${test}).`;
  return words`Whether ${moderator} changes how ${focal} goes with ${outcome} cannot be told from these respondents (${first} and ${second}: ${test}).`;
}

/** Of many places the least and the greatest slope: the rest stands in the table. */
function extremes(probe: Probe, reading: ProbeReading, title: Titles, one: string, way: string, signed: boolean, outcome: string): Words {
  const all = reading.found
    .map((effects, i) => ({ e: effects[0]!, place: reading.places[i]! }))
    .sort((a, b) => a.e.estimate - b.e.estimate);
  const told = ({ e, place }: (typeof all)[number]) =>
    `${amount({ ...e, estimate: signed ? e.estimate : Math.abs(e.estimate) }, probe)} where ${where(place, title)}`;
  return `For ${one}, ${outcome} ${way} between ${told(all[0]!)} and ${told(all.at(-1)!)}.`;
}

function where(place: ProbePlace, title: Titles): string {
  const words = (at: ModeratorAt) => {
    const name = moderatorPlaceName(at, title);
    return at.value !== null && at.label in LABELS ? `${name} (${formatNumber(at.value)})` : name;
  };
  return listed(place.at.map((at) => `${title(at.variable)} is ${words(at)}`));
}

/** Places where nobody is: a mean ± SD may lie beyond what was observed, of a number with two values it often does. */
function outsideSays(reading: ProbeReading, { numbers }: Probed, title: Titles): Words[] {
  const all = new Map(reading.places.flatMap(({ at }) => at.map((one) => [`${one.variable} ${one.label}`, one] as const)));
  return [...all.values()].flatMap((one): Words[] => {
    const sorted = one.value === null ? undefined : numbers.get(one.variable)?.sorted;
    if (!sorted || (one.value! >= sorted[0]! && one.value! <= sorted.at(-1)!)) return [];
    const [low, high] = [sorted[0]!, sorted.at(-1)!].map(formatValue);
    return [
      `Nobody has ${title(one.variable)} at ${moderatorPlaceWords(one, title).replace(/^.*, /, "")}: it was observed from ${low} to ${high}.`,
    ];
  });
}

function regionsSay(probe: Probe, reading: ProbeReading, result: Probed, title: Titles): Words[] {
  return reading.along.map(({ place, along }) => {
    const said = regionSays(along[0]!, result, title(probe.focal), title);
    return place.at.length === 0 ? said : `Where ${where(place, title)}: ${said[0]!.toLowerCase()}${said.slice(1)}`;
  });
}

const NO_REGION: Record<NoAlong["reason"], string> = {
  "not-estimable": "where it holds cannot be told: the sample does not hold what it would be told from.",
  "not-a-line": "where it holds is not worked out, because the slope does not change along a line.",
  "perfect-fit": "nothing but rounding is left to explain, so there is no test.",
  "does-not-vary": "the moderator does not vary.",
};

/** Where a slope can be told from zero, with how many respondents that is. */
export function regionSays(along: EffectAlong | NoAlong, { numbers, ground }: Probed, focal: string, title: Titles): string {
  if ("reason" in along) return NO_REGION[along.reason];
  const values = numbers.get(along.moderator)!.sorted;
  const n = values.length;
  const [low, high] = [values[0]!, values[n - 1]!];
  const name = title(along.moderator);
  const counts = regionShares(along.bounds, values).map((share) => Math.round(share * n));
  const of = (count: number) => `${formatCount(count)} of ${counted(n, "respondent")}`;
  const [first, second] = along.bounds.map((bound) => formatNumber(bound));
  const inside = along.bounds.map((bound) => bound > low && bound < high);
  const all = `The slope of ${focal} can be told from zero over all observed ${name}`;
  const none = `The slope of ${focal} can be told from zero nowhere in the observed ${name}`;
  const percent = Math.round(ground.confidence * 100);
  switch (along.holds) {
    case "everywhere":
      return `${all}.`;
    case "nowhere":
      return `${none}: the ${percent} % band holds zero throughout.`;
    case "above":
      return inside[0]
        ? `The slope can be told from zero where ${name} is above ${first}: ${of(counts[1]!)}.`
        : along.bounds[0]! <= low
          ? `${all}.`
          : `${none}.`;
    case "below":
      return inside[0]
        ? `The slope can be told from zero where ${name} is below ${first}: ${of(counts[0]!)}.`
        : along.bounds[0]! >= high
          ? `${all}.`
          : `${none}.`;
    case "between": {
      if (inside[0] && inside[1])
        return `The slope can be told from zero where ${name} lies between ${first} and ${second}: ${of(counts[1]!)}.`;
      if (inside[0])
        return `The slope can be told from zero where ${name} is above ${first}: ${of(counts[1]!)}. The other bound, ${second}, lies outside the data.`;
      if (inside[1])
        return `The slope can be told from zero where ${name} is below ${second}: ${of(counts[1]!)}. The other bound, ${first}, lies outside the data.`;
      return along.bounds[0]! <= low && along.bounds[1]! >= high ? `${all}; both bounds lie outside the data.` : `${none}.`;
    }
    case "outside": {
      if (inside[0] && inside[1])
        return `The slope can be told from zero where ${name} is below ${first} (${of(counts[0]!)}) and where it is above ${second} (${of(counts[2]!)}).`;
      if (inside[0])
        return `The slope can be told from zero where ${name} is below ${first}: ${of(counts[0]!)}. The other bound, ${second}, lies outside the data.`;
      if (inside[1])
        return `The slope can be told from zero where ${name} is above ${second}: ${of(counts[2]!)}. The other bound, ${first}, lies outside the data.`;
      return along.bounds[0]! <= low && along.bounds[1]! >= high ? `${none}; both bounds lie outside the data.` : `${all}.`;
    }
  }
}

/** Cells with fewer respondents than this are pointed out. */
const FEW = 10;

/** Cells that nobody is in, and thin ones. */
function cellsSay(reading: ProbeReading, { cells, ground }: Probed, title: Titles): Words[] {
  const focal = reading.effects[0]!.variable;
  const levels = ground.design.tables.find((t) => t.variable === focal)?.levels ?? [];
  if (!cells) return [];
  const all = levels.flatMap(({ level }) =>
    reading.places.map((place) => ({
      name: `${levelTitle(title, focal, level)} with ${placeName(place, title)}`,
      count: cells.get(cellKey([level, ...place.at.map((at) => at.label)])) ?? 0,
    })),
  );
  const empty = all.filter((cell) => cell.count === 0);
  const thin = all.filter((cell) => cell.count > 0 && cell.count < FEW);
  return [
    ...(empty.length > 0 ? [`Nobody is in ${listed(empty.map((c) => c.name))}: nothing is predicted for it.`] : []),
    ...(thin.length > 0 ? [`Few respondents: ${listed(thin.map((c) => `${c.name} (${c.count})`))}.`] : []),
  ];
}

function categorySays(probe: Probe, reading: ProbeReading, { ground }: Probed, title: Titles): Words[] {
  const alpha = 1 - ground.confidence;
  const outcome = title(ground.outcome);
  const sentences = reading.effects.map((effect, e): Words => {
    if (!("level" in effect)) return "";
    const [level, minus] = [levelTitle(title, probe.focal, effect.level), levelTitle(title, probe.focal, effect.minus)];
    const parts = reading.places.map((place, i) => {
      const found = reading.found[i]![e]!;
      return found === null
        ? `cannot be told where ${where(place, title)}`
        : `${amount(found, probe)}${told(found, alpha) ? "" : " (not told from zero)"} where ${where(place, title)}`;
    });
    return `${outcome} with ${level} rather than ${minus}: ${listed(parts)}.`;
  });
  const tested = reading.differences.flatMap((d) => d.found.flatMap((f) => (f?.p == null ? [] : [f.p])));
  const least = tested.length === 0 ? null : Math.min(...tested);
  const last: Words =
    least === null
      ? ""
      : least < alpha
        ? "The difference is not the same everywhere: the rows below the line test by how much."
        : `Whether the difference changes cannot be told from these respondents (smallest p ${formatP(least)}).`;
  return [...sentences, ...(last === "" ? [] : [last])];
}
