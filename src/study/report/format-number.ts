import { SYMBOL, type Words, words } from "./words";

/**
 * Numbers in print (docs/methods.md, “In print”): American Psychological Association style, 7th edition. The only place that
 * rounds. Minus is U+2212; what is not available is an en dash.
 */
const MINUS = "\u2212";
const NOT_AVAILABLE = "–";

function fixed(value: number, decimals: number): string {
  const size = Math.abs(value);
  if (size >= 1e7 || (size !== 0 && size < 0.5 * 10 ** -decimals && decimals > 4)) return withPower(value, 2);
  const text = size.toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? MINUS + text : text;
}

/** `1.23 × 10⁹` */
function withPower(value: number, decimals: number): string {
  const [digits, power] = value.toExponential(decimals).split("e");
  return `${digits!.replace("-", MINUS)} × 10${superscript(Number(power))}`;
}

/** b, SE, t, F, M, SD: two decimals, more for sizes below .01 so that a small unit does not read 0.00. */
export function formatNumber(value: number | null, decimals = 2): string {
  if (value === null || !Number.isFinite(value)) return NOT_AVAILABLE;
  const size = Math.abs(value);
  if (size !== 0 && size < 10 ** -decimals) {
    if (size < 1e-6) return withPower(value, 1);
    return fixed(value, 1 - Math.floor(Math.log10(size)));
  }
  return fixed(value, decimals);
}

function superscript(power: number): string {
  return String(power).replace(/[-\d]/g, (c) => (c === "-" ? "⁻" : "⁰¹²³⁴⁵⁶⁷⁸⁹"[Number(c)]!));
}

/**
 * Decimals for an estimate, its SE and its interval, the same for all four: two, or as many as show two digits of an SE
 * below .01, so that a coefficient in a small unit does not read 0.00.
 */
export function decimalsFor(se: number | null): number {
  return se !== null && se > 0 && se < 0.01 ? Math.min(12, 1 - Math.floor(Math.log10(se))) : 2;
}

/** A mean: one that is 0 but for the rounding of what it is the mean of reads 0.00, as that of z-scores does. */
export function formatMean(mean: number | null, sd: number | null): string {
  return formatNumber(mean !== null && sd !== null && Math.abs(mean) < 1e-10 * sd ? 0 : mean);
}

/** r, R², β, α: no zero before the point, since they (usually) stay below 1. */
export function formatShare(value: number | null, decimals = 2): string {
  if (value === null || !Number.isFinite(value)) return NOT_AVAILABLE;
  return fixed(value, decimals).replace(/^(\u2212?)0\./, "$1.");
}

/** p: three decimals without a zero before the point, `< .001` below. */
export function formatP(p: number | null): string {
  if (p === null) return NOT_AVAILABLE;
  return p < 0.001 ? "< .001" : formatShare(p, 3);
}

/** *p* = .012 or *p* < .001, for a sentence. */
export function pStatement(p: number | null): Words {
  return p !== null && p < 0.001 ? words`${SYMBOL.p} < .001` : words`${SYMBOL.p} = ${formatP(p)}`;
}

/** *F*(2, 425) = 58.78, *p* < .001. */
export function fStatement(F: number, [df1, df2]: readonly [number, number], p: number | null): Words {
  return words`${SYMBOL.F}(${df1}, ${df2}) = ${formatNumber(F)}, ${pStatement(p)}`;
}

/** A level of tests, α: `.05`, `.005`. Never rounded to another. */
export function formatLevel(alpha: number): string {
  return formatShare(alpha, Math.max(2, (String(alpha).split(".")[1] ?? "").length));
}

/** `[.12, .34]`. */
export function formatInterval(lower: number | null, upper: number | null, format: (v: number | null) => string): string {
  return lower === null || upper === null ? NOT_AVAILABLE : `[${format(lower)}, ${format(upper)}]`;
}

/** A number a person chose, with the digits it was given. */
export function formatPlain(value: number): string {
  return String(value).replace("-", "−");
}

/** A value that somebody has: whole numbers as they are, others with two decimals. */
export function formatValue(value: number | null): string {
  return value !== null && Number.isInteger(value) && Math.abs(value) < 1e7 ? formatPlain(value) : formatNumber(value);
}

/** `95 %` of a share such as .95; a decimal where there is one. */
export function formatPercent(share: number): string {
  return `${Math.round(share * 1000) / 10} %`;
}

/** A count with thin spaces between thousands. */
export function formatCount(value: number): string {
  return String(value).replace(/\B(?=(\d{3})+$)/g, "\u202f");
}

/** `1 answer`, `2 answers`. */
export function counted(value: number, one: string, many = `${one}s`): string {
  return `${formatCount(value)} ${value === 1 ? one : many}`;
}

/** `a`, `a and b`, `a, b and c`. */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? "") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;
}
