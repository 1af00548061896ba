/** A name in the words a person knows it by; of a category's level with the category before it: `Class format: online`. */
export type Titles = (name: string, level?: string | null) => string;

/** The words for one level of a category, without those for the category: `online`. */
export function levelTitle(title: Titles, variable: string, level: string): string {
  return title(variable, level).replace(`${title(variable)}: `, "");
}

/** The words of an axis: what it is, and what it counts. */
export function axisTitle(codebook: readonly { name: string; unit: string }[], title: Titles, name: string): string {
  const unit = codebook.find((v) => v.name === name)?.unit ?? "";
  return unit === "" ? title(name) : `${title(name)} (${unit})`;
}

/** A term in words: its variables, times one another. */
export function termTitle({ components }: { readonly components: readonly string[] }, title: Titles): string {
  return components.map((name) => title(name)).join(" × ");
}
