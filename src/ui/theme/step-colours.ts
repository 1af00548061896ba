const STEPS = ["#7A2E5D", "#B4532A", "#2F6B5E", "#8A680F", "#3F5A7D", "#5E7331"];

/** The colour of a step, counted from 0; after six they come round again. */
export function stepColour(step: number): string {
  return STEPS[step % STEPS.length]!;
}
