/**
 * `npm run lock`: completes package-lock.json after an install on one platform. npm leaves optional packages of other
 * platforms out of the lock it writes, and `npm ci` then refuses that lock. Each one named in an optionalDependencies
 * and missing gets a stub with its version and the platform its name tells.
 */
import { readFileSync, writeFileSync } from "node:fs";

const OS = {
  darwin: "darwin",
  linux: "linux",
  linuxmusl: "linux",
  win32: "win32",
  windows: "win32",
  android: "android",
  freebsd: "freebsd",
  openbsd: "openbsd",
  netbsd: "netbsd",
  sunos: "sunos",
  aix: "aix",
  openharmony: "openharmony",
};
const CPU = ["x64", "arm64", "ia32", "arm", "armv7", "ppc64", "s390x", "riscv64", "loong64", "mips64el", "universal", "wasm32"];

const lock = JSON.parse(readFileSync("package-lock.json", "utf8"));
let added = 0;
for (const [place, entry] of Object.entries(lock.packages)) {
  for (const [name, range] of Object.entries(entry.optionalDependencies ?? {})) {
    const nested = `${place}/node_modules/${name}`;
    const top = `node_modules/${name}`;
    if (lock.packages[nested] || lock.packages[top]) continue;
    if (!/^\d+\.\d+\.\d+/.test(range)) continue; // only exact versions name one package
    const words = name.split(/[/@-]/);
    const os = words.map((w) => OS[w]).find(Boolean);
    const cpu = CPU.find((c) => words.includes(c));
    lock.packages[top] = {
      version: range,
      optional: true,
      ...(entry.dev ? { dev: true } : {}),
      ...(os ? { os: [os] } : {}),
      ...(cpu ? { cpu: [cpu === "armv7" ? "arm" : cpu] } : {}),
      ...(words.includes("musl") ? { libc: ["musl"] } : words.includes("gnu") ? { libc: ["glibc"] } : {}),
    };
    added++;
  }
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync("package-lock.json", `${JSON.stringify(lock, null, 2)}\n`);
process.stdout.write(`${added} packages of other platforms added to the lock\n`);
