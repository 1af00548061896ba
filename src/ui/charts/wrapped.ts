/** A name in at most so many lines that fit beside an axis or in a chip; a long word is cut, and what does not fit ends in …. */
export function wrapped(name: string, letters = 32, most = 3): string[] {
  const lines: string[] = [];
  for (const word of name.split(/\s+/)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length + 1 <= letters) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word.length > letters ? `${word.slice(0, letters - 1)}…` : word);
  }
  return lines.length > most ? [...lines.slice(0, most - 1), `${lines[most - 1]!.slice(0, letters - 1)}…`] : lines;
}
