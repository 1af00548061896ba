import { CellState } from "@/study/model/response-column";

/** Rows a stored chunk holds: half a megabyte of values. */
export const CHUNK_ROWS = 65_536;

/** One filled piece of one column. */
export interface ColumnChunk {
  position: number;
  chunk: number;
  values: Float64Array;
  states: Uint8Array;
}

/** What was seen while a column was read; what its kind is guessed from. */
export interface ColumnSummary {
  numbers: number;
  empties: number;
  words: number;
  /** Lowest and highest number; null without numbers. */
  low: number | null;
  high: number | null;
  wholeNumbers: boolean;
  /** Distinct numbers, ascending, with their counts; null once there are more than 50. */
  numberCounts: { value: number; count: number }[] | null;
}

const NUMBER = /^[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?$/;

/**
 * A cell as a number, or null when it is words. Kept as words, so that nothing is lost: a leading zero (a code, as
 * `007`), a whole number beyond 2⁵³ (another code), a number too large for double precision.
 */
export function cellNumber(cell: string, decimal: "." | ","): number | null {
  const plain = decimal === "," ? cell.replace(",", ".") : cell;
  if (!NUMBER.test(plain) || (decimal === "," && cell.includes("."))) return null;
  if (/^[-+]?0\d/.test(plain)) return null;
  const value = Number(plain);
  if (!Number.isFinite(value)) return null;
  if (/^[-+]?\d+$/.test(plain) && !Number.isSafeInteger(value)) return null;
  return value === 0 ? 0 : value;
}

/** Takes a column's cells one by one and hands out full chunks. */
export class ColumnBuilder {
  private values = new Float64Array(CHUNK_ROWS);
  private states = new Uint8Array(CHUNK_ROWS);
  private filled = 0;
  private chunk = 0;
  private readonly dictionary = new Map<string, number>();
  private readonly seen = new Map<number, number>();
  private tooMany = false;
  private numbers = 0;
  private empties = 0;
  private words = 0;
  private low = Infinity;
  private high = -Infinity;
  private wholeNumbers = true;

  constructor(
    private readonly position: number,
    private readonly decimal: "." | ",",
    private readonly out: (chunk: ColumnChunk) => void,
  ) {}

  add(raw: string): void {
    const cell = raw.trim();
    const at = this.filled++;
    if (cell === "") {
      this.states[at] = CellState.empty;
      this.empties++;
    } else {
      const value = cellNumber(cell, this.decimal);
      if (value === null) this.addWords(cell, at);
      else this.addNumber(value, at);
    }
    if (this.filled === CHUNK_ROWS) this.flush();
  }

  private addNumber(value: number, at: number): void {
    this.values[at] = value;
    this.numbers++;
    if (value < this.low) this.low = value;
    if (value > this.high) this.high = value;
    if (!Number.isInteger(value)) this.wholeNumbers = false;
    if (this.tooMany) return;
    this.seen.set(value, (this.seen.get(value) ?? 0) + 1);
    this.tooMany = this.seen.size > 50;
  }

  private addWords(cell: string, at: number): void {
    let code = this.dictionary.get(cell);
    if (code === undefined) {
      code = this.dictionary.size;
      this.dictionary.set(cell, code);
    }
    this.values[at] = code;
    this.states[at] = CellState.text;
    this.words++;
  }

  private flush(): void {
    this.out({
      position: this.position,
      chunk: this.chunk++,
      values: this.values.slice(0, this.filled),
      states: this.states.slice(0, this.filled),
    });
    this.values.fill(0);
    this.states.fill(0);
    this.filled = 0;
  }

  /** Hands out what is left and tells what was seen. */
  finish(): { texts: string[]; summary: ColumnSummary } {
    if (this.filled > 0) this.flush();
    const some = this.numbers > 0;
    const numberCounts = this.tooMany ? null : [...this.seen].map(([value, count]) => ({ value, count })).sort((a, b) => a.value - b.value);
    return {
      texts: [...this.dictionary.keys()],
      summary: {
        numbers: this.numbers,
        empties: this.empties,
        words: this.words,
        low: some ? this.low : null,
        high: some ? this.high : null,
        wholeNumbers: some && this.wholeNumbers,
        numberCounts,
      },
    };
  }
}
