import { LuDecomposition, Matrix } from "ml-matrix";
import { multiply, type Rotation, transposed, unitRows } from "./rotation";
import { rotationStarts } from "./rotation-starts";

const MOST_ROUNDS = 5000;
/** Length of the projected gradient at which the loadings no longer move in their tenth digit. */
const FLAT = 1e-12;
/** A fall by less than this may be hidden by rounding: there the gradient tells which way it goes. */
const ROUNDING = 1e-14;
/** The same while it is only asked which start leads lowest; the best of them is then followed to the end. */
const NEARLY_FLAT = 1e-3;

interface Place {
  /** m × m, columns of length 1; factor correlations are its cross-products. */
  turn: Float64Array;
  pattern: Float64Array;
  value: number;
  gradient: Float64Array;
}

/**
 * Direct oblimin with γ = 0: oblique factors whose squared pattern loadings overlap least, rows at unit length while it turns. Projected gradients from
 * several starts; the best is kept.
 * @param loadings k × m, row-major
 * Source: Jennrich & Sampson (1966), Psychometrika 31, 313–323; Jennrich (2002), Psychometrika 67, 7–20.
 */
export function oblimin(loadings: Float64Array, k: number, m: number): Rotation {
  const { rows, lengths } = unitRows(loadings, k, m);
  let best: { place: Place; settled: boolean } | null = null;
  for (const start of rotationStarts(m)) {
    const found = descend(rows, start, k, m, NEARLY_FLAT);
    if (found && (!best || found.place.value < best.place.value - 1e-5)) best = found;
  }
  best = descend(rows, best!.place.turn, k, m, FLAT); // the unturned start always gives a place
  const { turn, pattern } = best!.place;
  return {
    pattern: pattern.map((x, at) => x * lengths[Math.floor(at / m)]!),
    correlations: multiply(transposed(turn, m, m), turn, m, m, m),
    settled: best!.settled,
  };
}

function descend(rows: Float64Array, start: Float64Array, k: number, m: number, flat: number) {
  let place = look(rows, start, k, m);
  if (!place) return null;
  let step = 1;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const slope = project(place, m);
    const length = lengthOf(slope);
    if (length < flat * flat) return { place, settled: true };
    step *= 2;
    let next: Place | null = null;
    for (let tries = 0; tries < 40; tries++, step /= 2) {
      const there = look(
        rows,
        unitColumns(
          place.turn.map((x, at) => x - step * slope[at]!),
          m,
        ),
        k,
        m,
      );
      if (there && improves(there, place, length, step, m)) {
        next = there;
        break;
      }
    }
    if (!next) return { place, settled: length < 1e-12 }; // no fall within rounding
    place = next;
  }
  return { place, settled: false };
}

/** Lower as a step along the slope should make it; where rounding would hide that, flatter. */
function improves(there: Place, place: Place, length: number, step: number, m: number): boolean {
  const fall = 0.5 * length * step;
  if (fall >= ROUNDING) return there.value < place.value - fall;
  return there.value < place.value + ROUNDING && lengthOf(project(there, m)) < length;
}

/** Squared. */
const lengthOf = (slope: Float64Array): number => slope.reduce((sum, x) => sum + x * x, 0);

/** Pattern, criterion ¼·Σ_i Σ_(r≠s) l²_ir·l²_is, and its gradient; null where the factors have become one. */
function look(rows: Float64Array, turn: Float64Array, k: number, m: number): Place | null {
  const lu = new LuDecomposition(Matrix.from1DArray(m, m, turn));
  if (lu.isSingular()) return null;
  const inverse = Float64Array.from(lu.solve(Matrix.eye(m)).to1DArray());
  const pattern = multiply(rows, transposed(inverse, m, m), k, m, m);
  const slopes = new Float64Array(k * m);
  let value = 0;
  for (let i = 0; i < k; i++) {
    let all = 0;
    for (let c = 0; c < m; c++) all += pattern[i * m + c]! ** 2;
    for (let c = 0; c < m; c++) {
      const x = pattern[i * m + c]!;
      slopes[i * m + c] = x * (all - x * x);
      value += (x * x * (all - x * x)) / 4;
    }
  }
  if (!Number.isFinite(value)) return null;
  const gradient = transposed(multiply(multiply(transposed(pattern, k, m), slopes, m, k, m), inverse, m, m, m), m, m).map((x) => -x);
  return { turn, pattern, value, gradient };
}

/** The gradient along the columns of length 1. */
function project({ turn, gradient }: Place, m: number): Float64Array {
  const along = new Float64Array(m);
  turn.forEach((x, at) => (along[at % m] = along[at % m]! + x * gradient[at]!));
  return gradient.map((g, at) => g - turn[at]! * along[at % m]!);
}

function unitColumns(turn: Float64Array, m: number): Float64Array {
  const squares = new Float64Array(m);
  turn.forEach((x, at) => (squares[at % m] = squares[at % m]! + x * x));
  return turn.map((x, at) => x / Math.sqrt(squares[at % m]!));
}
