import type { DecimalMark } from "../../model/cell-number";

/** A number that was typed with words around it. */
export interface Amount {
  /** As one number; of a span its middle. */
  value: number;
  span: boolean;
  /** What it counts, as a canonical word; "" where nothing is said. */
  unit: string;
}

/** Words that say what is counted, by the word they are told by. Minutes, hours and days can be turned into one another. */
const UNITS: Readonly<Record<string, readonly string[]>> = {
  min: ["min", "mins", "minute", "minutes", "minuten", "minutos", "minuti", "minut", "dakika", "minit"],
  h: ["h", "hr", "hrs", "hour", "hours", "std", "stunde", "stunden", "heure", "heures", "hora", "horas", "ora", "ore", "uur", "godz", "godzin", "saat", "jam"], // prettier-ignore
  days: ["d", "day", "days", "tag", "tage", "jour", "jours", "día", "dia", "días", "dias", "giorno", "giorni", "dag", "dagen", "dni", "gün", "hari"], // prettier-ignore
  weeks: ["week", "weeks", "woche", "wochen", "semaine", "semaines", "semana", "semanas"],
  months: ["month", "months", "monat", "monate", "mois", "mes", "meses", "mesi", "maand", "maanden"],
  years: ["y", "yr", "yrs", "year", "years", "jahr", "jahre", "an", "ans", "año", "años", "anno", "anni", "ano", "anos", "jaar", "lat", "lata", "yıl", "tahun"], // prettier-ignore
  "%": ["%", "percent", "prozent", "per cent", "pct"],
  "€": ["€", "eur", "euro", "euros"],
  $: ["$", "usd", "dollar", "dollars"],
  "£": ["£", "gbp", "pounds"],
  km: ["km", "kilometer", "kilometers", "kilometre", "kilometres"],
  kg: ["kg", "kilo", "kilos"],
  cm: ["cm"],
};
const UNIT_OF = new Map(Object.entries(UNITS).flatMap(([unit, words]) => words.map((word) => [word, unit] as const)));
/** Words that change nothing but how sure the number is. */
const ABOUT = new Set(
  "about approx approximately around roughly circa ca ungefähr etwa rund environ env vers alrededor unos aprox cerca circa ongeveer około yaklaşık ~ ≈ ± per pro a an the year old alt".split(" "), // prettier-ignore
);
const BETWEEN = new Set(["-", "to", "bis", "à", "a", "tot", "do", "until", "hasta", "und", "or", "oder", "and"]);
/** Minutes in what can be turned into one another. */
const MINUTES: Readonly<Record<string, number>> = { min: 1, h: 60, days: 1440 };

/**
 * A cell that holds one number, or a span of two, with a unit or a word such as "about" beside it. Null: it holds something else, and is not read:
 * a sentence that happens to have a number in it, two different amounts, "2h30".
 */
export function readAmount(text: string, decimal: DecimalMark): Amount | null {
  const plain = text
    .normalize("NFKC")
    .replace(/[‐-―−]/g, "-")
    .trim()
    .toLocaleLowerCase("en");
  // a number, with thousands parted by the other mark, a blank or an apostrophe
  const thousands = decimal === "," ? "[.\u0020'’]" : "[,\u0020'’]";
  const mark = decimal === "," ? "," : "\\.";
  const NUMBER = new RegExp(`\\d{1,3}(?:${thousands}\\d{3})+(?:${mark}\\d+)?(?![\\d.,])|\\d+(?:${mark}\\d+)?(?![\\d]|[.,]\\d)`, "gu");
  const found = [...plain.matchAll(NUMBER)];
  if (found.length < 1 || found.length > 2) return null;
  const rest = plain.replace(NUMBER, " \u0000 ");
  if (/\d/.test(rest)) return null;
  const words = rest.replace(/(\u0000) *[.)](?=\s|$)/g, "$1 ").split(/[\s()]+/).filter(Boolean); // prettier-ignore
  const numbers = found.map(([digits]) => Number(digits.replace(new RegExp(thousands, "g"), "").replace(decimal, ".")));
  const units = new Set<string>();
  const at = words.indexOf("\u0000");
  for (const [i, word] of words.entries()) {
    if (word === "\u0000") continue;
    const bare = word.replace(/\.$/, "");
    if (numbers.length === 2 && BETWEEN.has(bare) && i > at && i < words.lastIndexOf("\u0000")) continue;
    if (word === "-" && i < at) return signed(plain, numbers, units);
    const unit = UNIT_OF.get(bare);
    if (unit !== undefined) units.add(unit);
    else if (!ABOUT.has(bare)) return null;
  }
  if (units.size > 1) return null;
  const unit = [...units][0] ?? "";
  if (numbers.length === 1) return { value: numbers[0]!, span: false, unit };
  // a span needs something between its ends, and its ends in order
  const between = words.slice(at + 1, words.lastIndexOf("\u0000")).map((word) => word.replace(/\.$/, ""));
  if (!between.some((word) => BETWEEN.has(word)) || numbers[0]! >= numbers[1]!) return null;
  return { value: (numbers[0]! + numbers[1]!) / 2, span: true, unit };
}

/** "-5": a minus before the only number. */
function signed(plain: string, numbers: readonly number[], units: ReadonlySet<string>): Amount | null {
  if (numbers.length !== 1 || !/^- ?\d/.test(plain)) return null;
  return { value: -numbers[0]!, span: false, unit: [...units][0] ?? "" };
}

/** An amount in another unit; null when one cannot be turned into the other. What has no unit is taken as meant in the wanted one. */
export function inUnit({ value, unit }: Amount, wanted: string): number | null {
  if (unit === wanted || unit === "") return value;
  const [from, to] = [MINUTES[unit], MINUTES[wanted]];
  return from !== undefined && to !== undefined ? (value * from) / to : null;
}
