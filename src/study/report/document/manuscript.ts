import type { PrintTable } from "../print-table";
import type { Words } from "../words";

/** A part of a manuscript, in the order in which it is read. */
export type Block =
  | { readonly key: string; readonly kind: "heading"; readonly level: 2 | 3; readonly text: string }
  | { readonly key: string; readonly kind: "paragraph"; readonly sentences: readonly Words[] }
  | { readonly key: string; readonly kind: "table"; readonly number: number; readonly table: PrintTable };

/** A manuscript as values: the page and every kind of file print it, and nobody composes it twice. */
export interface Manuscript {
  readonly title: string;
  readonly blocks: readonly Block[];
}

/** Its tables count themselves, in the order in which they stand. */
export class ManuscriptWriter {
  private readonly written: Block[] = [];
  private tables = 0;

  heading(level: 2 | 3, text: string): void {
    this.written.push({ key: `h ${text} ${this.written.length}`, kind: "heading", level, text });
  }

  /** Sentences with nothing to say are left out, and a paragraph of none. */
  paragraph(key: string, sentences: readonly Words[]): void {
    const said = sentences.filter((sentence) => sentence !== "");
    if (said.length > 0) this.written.push({ key: `p ${key}`, kind: "paragraph", sentences: said });
  }

  /** @returns its number, known before it is written where `next` was asked for it */
  table(key: string, table: PrintTable): number {
    this.tables++;
    this.written.push({ key: `t ${key}`, kind: "table", number: this.tables, table });
    return this.tables;
  }

  /** The number that the next table will have. */
  get next(): number {
    return this.tables + 1;
  }

  blocks(): readonly Block[] {
    return this.written;
  }
}
