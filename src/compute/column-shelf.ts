import type { ColumnCache } from "@/study/prepare/study-columns";

/** Columns that were worked out or read, kept from job to job: the newest, up to so many cells. */
export class ColumnShelf implements ColumnCache {
  private readonly held = new Map<string, { value: unknown; cells: number }>();
  private cells = 0;

  constructor(private readonly mostCells = 40_000_000) {}

  get(key: string): unknown {
    const found = this.held.get(key);
    if (!found) return undefined;
    this.held.delete(key); // the latest used stands last
    this.held.set(key, found);
    return found.value;
  }

  set(key: string, value: unknown, cells: number): void {
    this.held.set(key, { value, cells });
    this.cells += cells;
    for (const [oldest, { cells: its }] of this.held) {
      if (this.cells <= this.mostCells || this.held.size === 1) return;
      this.held.delete(oldest);
      this.cells -= its;
    }
  }
}
