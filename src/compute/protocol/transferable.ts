/** What a message holds that can be handed over instead of copied: the numbers of replicates. Whoever sends it has it no more. */
export function transferable(message: unknown): ArrayBuffer[] {
  const values = (message as { values?: unknown } | null)?.values;
  return values instanceof Float64Array && values.buffer instanceof ArrayBuffer ? [values.buffer] : [];
}
