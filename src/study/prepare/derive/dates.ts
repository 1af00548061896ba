import type { DateOrder } from "../../model/derived";

/** A day of the calendar. */
export interface Day {
  year: number;
  month: number;
  day: number;
}

/** Mean length of a Gregorian year in days: 400 years have 146,097. */
const DAYS_A_YEAR = 365.2425;

const PATTERNS: Record<DateOrder, RegExp> = {
  "year-month-day": /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ].*)?$/,
  "day-month-year": /^(\d{1,2})[-/.] ?(\d{1,2})[-/.] ?(\d{4})(?:[T ].*)?$/,
  "month-day-year": /^(\d{1,2})[-/.] ?(\d{1,2})[-/.] ?(\d{4})(?:[T ].*)?$/,
};

/** A day as written, or null when it is none: years have four digits, and 31 April is no day. */
export function readDay(text: string, order: DateOrder): Day | null {
  const match = PATTERNS[order].exec(text.trim());
  if (!match) return null;
  const [a, b, c] = [Number(match[1]), Number(match[2]), Number(match[3])];
  const [year, month, day] = order === "year-month-day" ? [a, b, c] : order === "day-month-year" ? [c, b, a] : [c, a, b];
  const date = new Date(Date.UTC(year, month - 1, day));
  if (year < 100 || date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return null;
  return { year, month, day };
}

const CLOCK = /[T ]+(\d{1,2})[:.h](\d{2})(?:[:.](\d{2}(?:[.,]\d+)?))?\s*(am|pm)?\s*(Z|[+-]\d{2}:?\d{2})?$/i;

/** Minutes since the first of January 1970 of a day with a time, a zone allowed for; null when it is none. A day without a time has none either. */
export function readMoment(text: string, order: DateOrder): number | null {
  const written = text.trim();
  const day = readDay(written, order);
  const clock = CLOCK.exec(written);
  if (!day || !clock) return null;
  const [hours, minutes, seconds] = [Number(clock[1]), Number(clock[2]), Number((clock[3] ?? "0").replace(",", "."))];
  const half = clock[4]?.toLowerCase();
  if (minutes > 59 || seconds >= 61 || hours > (half ? 12 : 23) || (half && hours === 0)) return null;
  const zone = /([+-])(\d{2}):?(\d{2})/.exec(clock[5] ?? "");
  const ahead = zone ? (zone[1] === "-" ? -1 : 1) * (Number(zone[2]) * 60 + Number(zone[3])) : 0;
  const hour = half ? (hours % 12) + (half === "pm" ? 12 : 0) : hours;
  return dayNumber(day) * 1440 + hour * 60 + minutes + seconds / 60 - ahead;
}

/** The orders in which every one of some texts is a day; none when they are no dates, several when it cannot be told. */
export function ordersOf(texts: readonly string[]): DateOrder[] {
  return (Object.keys(PATTERNS) as DateOrder[]).filter((order) => texts.length > 0 && texts.every((text) => readDay(text, order) !== null));
}

/** The order that most of some texts are dates in; null when none is. Day before month where it cannot be told. */
export function commonOrder(texts: readonly string[]): DateOrder | null {
  const votes = (Object.keys(PATTERNS) as DateOrder[]).map((order) => ({
    order,
    for: texts.filter((text) => readDay(text, order)).length,
  }));
  const best = votes.reduce((a, b) => (b.for > a.for ? b : a));
  return best.for === 0 ? null : best.order;
}

/** Days since the first of January 1970. */
export function dayNumber({ year, month, day }: Day): number {
  return Date.UTC(year, month - 1, day) / 86_400_000;
}

/** Years completed between two days, as a person counts an age; negative when `to` is before `from`. */
export function completedYears(from: Day, to: Day): number {
  const years = to.year - from.year;
  return to.month < from.month || (to.month === from.month && to.day < from.day) ? years - 1 : years;
}

/** Years between two days with decimals: days over the mean length of a year. */
export function exactYears(from: Day, to: Day): number {
  return (dayNumber(to) - dayNumber(from)) / DAYS_A_YEAR;
}
