import erfc from "@stdlib/math-base-special-erfc";
import erfcinv from "@stdlib/math-base-special-erfcinv";

/** Upper tail P(Z ≥ z) of the standard normal distribution. Accuracy: about 1e-15 relative, down to 1e-300. */
export function normalUpperTail(z: number): number {
  return erfc(z / Math.SQRT2) / 2;
}

/** The z below which a share `p` (0…1) of the standard normal distribution lies. Accuracy: about 7e-14 relative, down to p = 1e-300. */
export function normalQuantile(p: number): number {
  return -Math.SQRT2 * erfcinv(2 * p);
}

/** φ(z). */
export function normalDensity(z: number): number {
  return Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);
}
