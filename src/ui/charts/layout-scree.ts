import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

/** A scree plot in the measure of its frame. */
export interface ScreeLayout {
  x: (place: number) => number;
  y: (value: number) => number;
  /** Places on the axis below, from 1; fewer than all where they would collide. */
  places: number[];
  ticks: number[];
  own: string;
  random: string;
  /** Where the lines' labels stand, so that they do not cross. */
  labels: { own: number; random: number };
}

const LEAST_GAP = 15;

/** @param eigenvalues, random largest first, of equal length */
export function layoutScree(
  eigenvalues: readonly number[],
  random: readonly number[],
  frame: { width: number; height: number; left: number; right: number; top: number; bottom: number },
): ScreeLayout {
  const k = eigenvalues.length;
  const x = scaleLinear()
    .domain([1, Math.max(2, k)])
    .range([frame.left, frame.width - frame.right]);
  const y = scaleLinear()
    .domain([Math.min(0, ...eigenvalues), Math.max(...eigenvalues, ...random)])
    .nice(5)
    .range([frame.height - frame.bottom, frame.top]);
  const path = line<number>()
    .x((_, i) => x(i + 1))
    .y((value) => y(value));
  const every = Math.max(1, Math.ceil((k * LEAST_GAP) / (frame.width - frame.left - frame.right)));
  const [own, other] = [y(eigenvalues.at(-1)!), y(random.at(-1)!)];
  const apart = Math.max(0, LEAST_GAP - Math.abs(own - other)) / 2;
  const lower = own >= other ? 1 : -1;
  return {
    x,
    y,
    places: Array.from({ length: k }, (_, i) => i + 1).filter((place) => (place - 1) % every === 0),
    ticks: y.ticks(5),
    own: path(eigenvalues)!,
    random: path(random)!,
    labels: { own: own + lower * apart, random: other - lower * apart },
  };
}
