/** An id made from a name, readable in results, different from those taken: `Tutor support` → `tutor_support`, `tutor_support_2`. */
export function newId(name: string, taken: readonly string[]): string {
  const plain =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "_")
      .replace(/^_+|_+$/g, "")
      .slice(0, 48) || "object";
  let id = plain;
  for (let k = 2; taken.includes(id); k++) id = `${plain}_${k}`;
  return id;
}
