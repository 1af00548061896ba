const indices = new WeakMap<readonly { readonly name: string }[], ReadonlyMap<string, unknown>>();

/**
 * The one of a list that has a name; undefined for none. A list is gone through once, however often it is asked: a study's lists never change, a changed study has others,
 * and what asks for each of a thousand names would go through a thousand rows each time.
 */
export function byName<T extends { readonly name: string }>(list: readonly T[], name: string): T | undefined {
  const known = indices.get(list) as ReadonlyMap<string, T> | undefined;
  if (known) return known.get(name);
  // of several the first, as a search from the front would have it
  const index = new Map([...list].reverse().map((one) => [one.name, one]));
  indices.set(list, index);
  return index.get(name);
}
