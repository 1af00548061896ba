/** Does several tasks in turns and prints the median of each, with the least and the most. */
export function inTurns(tasks: Readonly<Record<string, () => unknown>>, rounds: number): void {
  const times = new Map(Object.keys(tasks).map((name) => [name, [] as number[]]));
  for (let round = 0; round < rounds; round++)
    for (const [name, task] of Object.entries(tasks)) {
      const began = performance.now();
      task();
      times.get(name)!.push(performance.now() - began);
    }
  for (const [name, list] of times) {
    const sorted = list.toSorted((a, b) => a - b);
    const median = sorted[Math.floor(sorted.length / 2)]!;
    process.stdout.write(`${name}: ${median.toFixed(0)} ms (${sorted[0]!.toFixed(0)} to ${sorted.at(-1)!.toFixed(0)})\n`);
  }
}
