import type { Derivation } from "@/study/prepare/derive/derived-column";
import type { DerivationCache } from "@/study/prepare/study-columns";

/** Derived columns kept from job to job: the newest, up to so many cells. */
export class DerivationShelf implements DerivationCache {
  private readonly held = new Map<string, Derivation>();
  private cells = 0;

  constructor(private readonly mostCells = 20_000_000) {}

  get(key: string): Derivation | undefined {
    const found = this.held.get(key);
    if (found) {
      this.held.delete(key); // the latest used stands last
      this.held.set(key, found);
    }
    return found;
  }

  set(key: string, derivation: Derivation): void {
    this.held.set(key, derivation);
    this.cells += derivation.facts.rows;
    for (const [oldest, { facts }] of this.held) {
      if (this.cells <= this.mostCells || this.held.size === 1) return;
      this.held.delete(oldest);
      this.cells -= facts.rows;
    }
  }
}
