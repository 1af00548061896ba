/** Finds what was typed in a choice's words, whatever the case. */
export function matches(typed: string, option: unknown): boolean {
  const text = (option as { search?: string } | undefined)?.search ?? "";
  return text.toLocaleLowerCase().includes(typed.trim().toLocaleLowerCase());
}
