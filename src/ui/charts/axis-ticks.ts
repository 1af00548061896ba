import { tickStep } from "d3-array";
import type { ScaleLinear } from "d3-scale";

/** Between two labels beside each other, in the size of their type. */
const GAP = 0.8;
const SUPERSCRIPTS = "⁰¹²³⁴⁵⁶⁷⁸⁹";

export interface AxisTick {
  value: number;
  /** On the scale. */
  at: number;
  label: string;
}

type Scale = ScaleLinear<number, number>;
type Print = (value: number) => string;

/** Room that a number takes up in the house's sans, whose digits are all as wide. @param size of its type */
export function labelWidth(label: string, size: number): number {
  let wide = 0;
  for (const letter of label) wide += /[.,·\u202f ]/.test(letter) ? 0.27 : SUPERSCRIPTS.includes(letter) || letter === "⁻" ? 0.36 : 0.52;
  return wide * size;
}

/** Where a label that is held at a place stands so that no end of it is cut. @param width of the whole picture */
export function within(place: number, anchor: "start" | "middle" | "end", label: string, size: number, width: number): number {
  const wide = labelWidth(label, size);
  const before = { start: 0, middle: wide / 2, end: wide }[anchor];
  return Math.max(before, Math.min(width - wide + before, place));
}

/**
 * Ticks of an axis below a picture: fewer than wanted where their labels would run into each other, and none beyond the edge.
 * @param width of the whole picture
 * @param size of the type
 * @param print the chart's own way of writing a number; left out, as many decimals as tell the ticks apart
 * @returns each with the middle of its label, which is moved inwards where it would be cut
 */
export function ticksBelow(scale: Scale, wanted: number, size: number, width: number, print?: Print): (AxisTick & { middle: number })[] {
  const [from, to] = scale.range() as [number, number];
  const room = (to - from) / wanted;
  for (let count = wanted; ; count--) {
    const ticks = inRoom(scale, count, size, room, print).map((tick) => {
      return { ...tick, half: labelWidth(tick.label, size) / 2, middle: within(tick.at, "middle", tick.label, size, width) };
    });
    const clear = ticks.every((tick, i) => i === 0 || tick.middle - tick.half - ticks[i - 1]!.middle - ticks[i - 1]!.half > GAP * size);
    if (clear) return ticks;
    if (count === 1) return ticks.slice(0, 1);
  }
}

/**
 * Ticks of an axis beside a picture. Where their labels have no room they are told in a power of ten, which is said once.
 * @param room left for their labels, in the chart's units
 * @param power `× 10⁹`; "" for none
 */
export function ticksBeside(scale: Scale, wanted: number, size: number, room: number, print?: Print): { ticks: AxisTick[]; power: string } {
  const values = scale.ticks(wanted);
  const step = stepOf(scale, wanted);
  const ticks = told(scale, values, step, print);
  const short = inPowers(values, step);
  if (!short || ticks.every(({ label }) => labelWidth(label, size) <= room)) return { ticks, power: "" };
  return { ticks: labelled(scale, values, short.digits), power: `× ${short.power}` };
}

const labelled = (scale: Scale, values: readonly number[], print: Print): AxisTick[] => values.map((value) => ({ value, at: scale(value), label: print(value) })); // prettier-ignore

/** By the chart's own way of writing, where it tells them apart and all have as many decimals. */
function told(scale: Scale, values: readonly number[], step: number, print: Print | undefined): AxisTick[] {
  const own = print ? labelled(scale, values, print) : [];
  const decimals = new Set(own.map(({ label }) => label.split(".")[1]?.length ?? 0));
  return print && decimals.size < 2 && new Set(own.map(({ label }) => label)).size === own.length ? own : labelled(scale, values, inSteps(step)); // prettier-ignore
}

/** Ticks with their numbers as they are, or each with its power of ten where that is shorter and there is little room. */
function inRoom(scale: Scale, count: number, size: number, room: number, print: Print | undefined): AxisTick[] {
  const values = scale.ticks(count);
  const step = stepOf(scale, count);
  const ticks = told(scale, values, step, print);
  const short = inPowers(values, step);
  const widest = (all: readonly AxisTick[]) => Math.max(0, ...all.map(({ label }) => labelWidth(label, size)));
  if (!short || widest(ticks) <= room) return ticks;
  const powers = labelled(scale, values, (value) => (value === 0 ? "0" : `${short.digits(value)} × ${short.power}`));
  return widest(powers) < widest(ticks) ? powers : ticks;
}

function stepOf(scale: Scale, count: number): number {
  const [low, high] = scale.domain() as [number, number];
  return Math.abs(tickStep(low, high, count)) || Math.abs(low) || 1; // all in one place: there is no step
}

/** With as many decimals as tell numbers apart that are a step away from each other. */
function inSteps(step: number): Print {
  const decimals = Math.min(20, Math.max(0, -Math.floor(Math.log10(step) + 1e-9)));
  const digits = { minimumFractionDigits: decimals, maximumFractionDigits: decimals };
  return (value) => (value + 0).toLocaleString("en", digits).replace(/,/g, "\u202f").replace("-", "\u2212");
}

/** The same as digits before a power of ten, of the largest one; null where that is none. */
function inPowers(values: readonly number[], step: number): { digits: Print; power: string } | null {
  const power = Math.floor(Math.log10(Math.max(...values.map(Math.abs))));
  if (!Number.isFinite(power) || power === 0) return null;
  const print = inSteps(step / 10 ** power);
  const raised = String(power).replace(/[-\d]/g, (c) => (c === "-" ? "⁻" : SUPERSCRIPTS[Number(c)]!));
  return { digits: (value) => print(value / 10 ** power), power: `10${raised}` };
}
