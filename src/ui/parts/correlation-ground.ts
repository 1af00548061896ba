/** A ground that grows with the size of a correlation, plum together and pine apart; light enough at any size for the number to be read on it. */
export function correlationGround(r: number | null): string {
  if (r === null || Math.abs(r) < 0.1) return "transparent";
  const strength = Math.min(0.42, Math.abs(r) * 0.5).toFixed(3);
  return r > 0 ? `rgb(122 46 93 / ${strength})` : `rgb(47 107 94 / ${strength})`;
}
