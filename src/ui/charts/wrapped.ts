const LETTERS = 32;

/** A name in at most three lines that fit beside an axis; a long word is cut. */
export function wrapped(name: string): string[] {
  const lines: string[] = [];
  for (const word of name.split(/\s+/)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length + 1 <= LETTERS) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word.length > LETTERS ? `${word.slice(0, LETTERS - 1)}…` : word);
  }
  return lines.length > 3 ? [...lines.slice(0, 2), `${lines[2]!.slice(0, LETTERS - 1)}…`] : lines;
}
