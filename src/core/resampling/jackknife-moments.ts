/** Jackknife values that differ by no more than this share of their size differ by rounding alone. */
const ROUNDING = 1e-12;

/** Leave-one-out values of the units of one stratum, taken in some at a time. */
export class JackknifeMoments {
  private count = 0;
  private sum = 0;
  private squares = 0;
  private cubes = 0;
  private least = Infinity;
  private most = -Infinity;

  /** @param reference a number near the values, such as the estimate: sums are taken from there and keep their digits */
  constructor(private readonly reference: number) {}

  /** Takes in values from `from` up to `to`. */
  add(values: Float64Array, from: number, to: number): void {
    let { sum, squares, cubes, least, most } = this;
    for (let i = from; i < to; i++) {
      const d = values[i]! - this.reference;
      sum += d;
      squares += d * d;
      cubes += d * d * d;
      if (d < least) least = d;
      if (d > most) most = d;
    }
    Object.assign(this, { sum, squares, cubes, least, most, count: this.count + to - from });
  }

  /**
   * ΣU²/n² and ΣU³/n³ of U = (n − 1)·(θ̄ − θ₍ᵢ₎); both 0 where the values differ by rounding alone.
   */
  influence(): { squares: number; cubes: number } {
    const { count, sum, reference } = this;
    const centre = sum / count;
    const farthest = Math.max(this.most - centre, centre - this.least);
    const largest = Math.max(Math.abs(this.most + reference), Math.abs(this.least + reference));
    if (!(farthest > ROUNDING * largest)) return { squares: 0, cubes: 0 };
    const share = (count - 1) / count;
    return {
      squares: share ** 2 * (this.squares - sum * centre),
      cubes: -(share ** 3) * (this.cubes - 3 * centre * this.squares + 2 * sum * centre * centre),
    };
  }
}

/**
 * Acceleration from leave-one-out values: Σ ΣU³/n³ / (6·(Σ ΣU²/n²)^1.5) over the strata, which for one stratum is Σ(θ̄ − θ₍ᵢ₎)³ / (6·(Σ(θ̄ − θ₍ᵢ₎)²)^1.5);
 * 0 where they differ by rounding alone.
 * Source: Davison & Hinkley (1997), Bootstrap Methods and their Application, 5.3.2 and 5.4.2.
 */
export function acceleration(strata: readonly JackknifeMoments[]): number {
  let [squares, cubes] = [0, 0];
  for (const stratum of strata) {
    const found = stratum.influence();
    squares += found.squares;
    cubes += found.cubes;
  }
  return squares > 0 ? cubes / (6 * squares ** 1.5) : 0;
}
