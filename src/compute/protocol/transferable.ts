const tagOf = (value: unknown) => Object.prototype.toString.call(value);

/** What a message holds that can be handed over instead of copied: the numbers of replicates. Whoever sends it has it no more. */
export function transferable(message: unknown): ArrayBuffer[] {
  const values = (message as { values?: Float64Array } | null)?.values;
  // by its tag: one made in another realm is none by `instanceof`
  return tagOf(values) === "[object Float64Array]" && tagOf(values!.buffer) === "[object ArrayBuffer]"
    ? [values!.buffer as ArrayBuffer]
    : [];
}
