import { readdirSync, readFileSync } from "node:fs";

/** Memory a process and all it has started hold, in MB. */
export function memoryOf(pid: number): number {
  const parents = new Map<number, number>();
  const resident = new Map<number, number>();
  for (const entry of readdirSync("/proc")) {
    if (!/^\d+$/.test(entry)) continue;
    try {
      const status = readFileSync(`/proc/${entry}/status`, "utf8");
      parents.set(Number(entry), Number(/^PPid:\s+(\d+)/m.exec(status)?.[1]));
      resident.set(Number(entry), Number(/^VmRSS:\s+(\d+)/m.exec(status)?.[1] ?? 0) / 1024);
    } catch {
      // it has ended meanwhile
    }
  }
  const belongs = (one: number): boolean => one === pid || (parents.has(one) && one > 1 && belongs(parents.get(one)!));
  return [...resident].reduce((sum, [one, mb]) => sum + (belongs(one) ? mb : 0), 0);
}
