/**
 * Compiles the resampling kernel (AssemblyScript → WebAssembly) into a module that any worker, Node or test can import. Does nothing when its source has
 * not changed since.
 */
import { createHash } from "node:crypto";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { spawnSync } from "node:child_process";
import { toolArguments } from "./tools.mjs";

const SOURCE = "src/core/resampling/engine/assembly/kernel.ts";
const TARGET = "src/core/resampling/engine/kernel-bytes.ts";
const OPTIONS = ["--enable", "simd", "--runtime", "stub", "-O3", "--noAssert", "--use", "abort=", "--initialMemory", "1"];

export default function buildKernel() {
  const { version } = JSON.parse(readFileSync("node_modules/assemblyscript/package.json", "utf8"));
  const hash = createHash("sha256")
    .update(readFileSync(SOURCE))
    .update(JSON.stringify([OPTIONS, version]))
    .digest("hex");
  if (existsSync(TARGET) && readFileSync(TARGET, "utf8").includes(hash)) return;
  const folder = mkdtempSync(path.join(tmpdir(), "beta-step-kernel-"));
  const out = path.join(folder, "kernel.wasm");
  const { status } = spawnSync(process.execPath, toolArguments("asc", [SOURCE, "--outFile", out, ...OPTIONS]), { stdio: "inherit" });
  if (status !== 0) process.exit(status ?? 1);
  const base64 = readFileSync(out).toString("base64");
  rmSync(folder, { recursive: true });
  writeFileSync(
    TARGET,
    `// Made by scripts/build-kernel.mjs from assembly/kernel.ts; not kept in the repository. Source: ${hash}\nexport const KERNEL_BASE64 =\n  "${base64}";\n`,
  );
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) buildKernel();
