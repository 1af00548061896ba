import { cellNumber } from "@/study/model/cell-number";
import { CellState } from "@/study/model/response-column";
import type { ReadSummary } from "./read-summary";

/** Rows a stored chunk holds: half a megabyte of values; fewer when there are very many columns, whose chunks fill side by side. */
export const CHUNK_ROWS = 65_536;
const MOST_CELLS_AT_ONCE = 4_194_304;

/** Rows a chunk of a table with so many columns holds: a power of two. */
export function chunkRowsFor(columns: number): number {
  let rows = CHUNK_ROWS;
  while (rows > 1024 && rows * columns > MOST_CELLS_AT_ONCE) rows /= 2;
  return rows;
}

/** Different cells a column remembers how to read: answers are few and come again and again. */
const MOST_KNOWN = 2000;

/** So many different numbers are held to see that none comes twice. */
const MOST_ONCE = 300_000;

/** One filled piece of one column. */
export interface ColumnChunk {
  position: number;
  chunk: number;
  /** Row of the column, from 0, that the chunk begins with. */
  first: number;
  values: Float64Array;
  states: Uint8Array;
}

/** Takes a column's cells one by one and hands out full chunks. */
export class ColumnBuilder {
  private values: Float64Array;
  private states: Uint8Array;
  private readonly known = new Map<string, number | string | null>();
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
  /** Every number so far, as long as none came twice and all are whole; null from then on. */
  private once: Set<number> | null = new Set();
  /** Letters in its different texts. */
  letters = 0;

  constructor(
    private readonly position: number,
    private readonly decimal: "." | ",",
    private readonly chunkRows: number,
    private readonly out: (chunk: ColumnChunk) => void,
  ) {
    this.values = new Float64Array(chunkRows);
    this.states = new Uint8Array(chunkRows);
  }

  /** Different texts so far. */
  get texts(): number {
    return this.dictionary.size;
  }

  /** Takes the next cell: text as written, a number, or nothing. */
  add(raw: string | number | null): void {
    const cell = typeof raw === "string" ? this.understood(raw) : raw;
    const at = this.filled++;
    if (cell === null) {
      this.states[at] = CellState.empty;
      this.empties++;
    } else if (typeof cell === "number") this.addNumber(cell === 0 ? 0 : cell, at);
    else this.addWords(cell, at);
    if (this.filled === this.chunkRows) this.flush();
  }

  /** Text as what it says: nothing, a number, or words without the blanks around them. */
  private understood(raw: string): number | string | null {
    const known = this.known.get(raw);
    if (known !== undefined) return known;
    const cell = raw.trim();
    const found = cell === "" ? null : (cellNumber(cell, this.decimal) ?? cell);
    if (this.known.size < MOST_KNOWN) this.known.set(raw, found);
    return found;
  }

  private addNumber(value: number, at: number): void {
    this.values[at] = value;
    this.numbers++;
    if (value < this.low) this.low = value;
    if (value > this.high) this.high = value;
    if (!Number.isInteger(value)) this.wholeNumbers = false;
    if (this.once !== null) {
      if (this.once.has(value) || !this.wholeNumbers || this.once.size >= MOST_ONCE) this.once = null;
      else this.once.add(value);
    }
    if (this.tooMany) return;
    this.seen.set(value, (this.seen.get(value) ?? 0) + 1);
    this.tooMany = this.seen.size > 50;
  }

  private addWords(cell: string, at: number): void {
    let code = this.dictionary.get(cell);
    if (code === undefined) {
      code = this.dictionary.size;
      this.dictionary.set(cell, code);
      this.letters += cell.length;
    }
    this.values[at] = code;
    this.states[at] = CellState.text;
    this.words++;
  }

  private flush(): void {
    const chunk = this.chunk++;
    this.out({
      position: this.position,
      chunk,
      first: chunk * this.chunkRows,
      values: this.values.slice(0, this.filled),
      states: this.states.slice(0, this.filled),
    });
    this.values.fill(0);
    this.states.fill(0);
    this.filled = 0;
  }

  /** Hands out what is left and tells what was seen. */
  finish(): { texts: string[]; summary: ReadSummary } {
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
        running: some && this.once !== null && this.numbers >= 10 && this.high - this.low < 3 * this.numbers,
        numberCounts,
      },
    };
  }
}
