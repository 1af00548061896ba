/** Work that would get into each other's way: one thing at a time, in the order they came. What belongs to the thing whose turn it is begins at once. */
export class Turns {
  private readonly waiting: { key: string; begin: () => void }[] = [];
  private current: { key: string; busy: number } | null = null;

  /** @throws the signal's reason, when it was stopped before its turn */
  async take<T>(key: string, signal: AbortSignal, work: () => Promise<T>): Promise<T> {
    signal.throwIfAborted();
    await this.myTurn(key, signal);
    try {
      return await work();
    } finally {
      this.done();
    }
  }

  private myTurn(key: string, signal: AbortSignal): Promise<void> {
    if (this.current === null || this.current.key === key) {
      this.current = { key, busy: (this.current?.busy ?? 0) + 1 };
      return Promise.resolve();
    }
    return new Promise((resolve, reject) => {
      const one = { key, begin: resolve };
      this.waiting.push(one);
      signal.addEventListener("abort", () => {
        const at = this.waiting.indexOf(one);
        if (at < 0) return;
        this.waiting.splice(at, 1);
        reject(signal.reason as Error);
      });
    });
  }

  private done(): void {
    if (--this.current!.busy > 0) return;
    const next = this.waiting[0]?.key;
    this.current = null;
    const own = this.waiting.filter((one) => one.key === next);
    for (const one of own) {
      this.waiting.splice(this.waiting.indexOf(one), 1);
      this.current = { key: one.key, busy: ((this.current as { busy: number } | null)?.busy ?? 0) + 1 };
      one.begin();
    }
  }
}
