/** The words for one level of a category, without those for the category: `online`. @param title the words for a name, `format[online]` among them */
export function levelTitle(title: (name: string) => string, variable: string, level: string): string {
  return title(`${variable}[${level}]`).replace(`${title(variable)}: `, "");
}
