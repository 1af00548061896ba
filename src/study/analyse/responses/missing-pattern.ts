import type { Analysis } from "../../kinds/kind";
import type { StudyColumns } from "../../prepare/study-columns";

/** Who left what open, among the respondents who are in the study. */
export interface MissingPattern {
  respondents: number;
  /** Share of respondents without an answer, by variable, in codebook order. */
  variables: { name: string; missing: number }[];
  /** How many respondents left so many of the variables open, ascending by number of gaps. */
  gaps: { gaps: number; respondents: number }[];
  /** Respondents (rows from 1) with the most gaps first; the first fifty. */
  most: { row: number; gaps: number }[];
  /** The variables across the patterns: those with gaps, most first, at most thirty. */
  across: string[];
  /** Ways of leaving these open, most frequent first; the first fifteen. `open[i]` belongs to across[i]. */
  patterns: { open: boolean[]; respondents: number }[];
  /** Respondents whose pattern is not among them. */
  otherwise: number;
}

const MOST_ACROSS = 30;
const MOST_PATTERNS = 15;
const MOST_RESPONDENTS = 50;

/** @throws what the columns throw */
export function missingPattern(names: readonly string[], columns: StudyColumns, rows: number): MissingPattern {
  const kept = columns.kept(rows);
  const gapsOf = new Int32Array(rows);
  const all = names.map((name) => {
    const { missing } = columns.answered(name);
    let count = 0;
    for (let row = 0; row < rows; row++) {
      if (!kept[row] || !missing[row]) continue;
      count++;
      gapsOf[row]!++;
    }
    return { name, missing: count, cells: missing };
  });
  const across = all
    .filter((v) => v.missing > 0)
    .sort((a, b) => b.missing - a.missing)
    .slice(0, MOST_ACROSS);
  const byGaps = new Map<number, number>();
  const byPattern = new Map<number, number>();
  let respondents = 0;
  for (let row = 0; row < rows; row++) {
    if (!kept[row]) continue;
    respondents++;
    byGaps.set(gapsOf[row]!, (byGaps.get(gapsOf[row]!) ?? 0) + 1);
    let pattern = 0; // thirty variables fit into the bits of one number
    for (let k = 0; k < across.length; k++) if (across[k]!.cells[row]) pattern += 2 ** k;
    byPattern.set(pattern, (byPattern.get(pattern) ?? 0) + 1);
  }
  const patterns = [...byPattern]
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_PATTERNS)
    .map(([bits, count]) => ({ open: across.map((_, k) => Math.floor(bits / 2 ** k) % 2 === 1), respondents: count }));
  const most = Array.from(gapsOf, (gaps, row) => ({ row: row + 1, gaps: kept[row] ? gaps : 0 }))
    .filter((r) => r.gaps > 0)
    .sort((a, b) => b.gaps - a.gaps || a.row - b.row)
    .slice(0, MOST_RESPONDENTS);
  return {
    respondents,
    variables: all.map(({ name, missing }) => ({ name, missing })),
    gaps: [...byGaps].map(([gaps, count]) => ({ gaps, respondents: count })).sort((a, b) => a.gaps - b.gaps),
    most,
    across: across.map((v) => v.name),
    patterns,
    otherwise: respondents - patterns.reduce((sum, p) => sum + p.respondents, 0),
  };
}

export const analysis: Analysis<{ names: string[] }, { names: string[] }, MissingPattern> = {
  run: ({ names }, { columns, rows }) => missingPattern(names, columns, rows),
};
