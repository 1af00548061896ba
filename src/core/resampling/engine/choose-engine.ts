import { KERNEL_BASE64 } from "./kernel-bytes";
import { KernelEngine } from "./kernel-engine";
import { PlainEngine } from "./plain-engine";
import type { Engine, Problem } from "./problem";

let compiled: WebAssembly.Module | null | undefined;

/** The compiled kernel; null where WebAssembly with SIMD is off. */
function kernel(): WebAssembly.Module | null {
  if (compiled === undefined) {
    try {
      compiled = new WebAssembly.Module(Uint8Array.from(atob(KERNEL_BASE64), (c) => c.charCodeAt(0)));
    } catch {
      compiled = null; // switched off, forbidden by a policy, or without SIMD: the plain path gives the same numbers
    }
  }
  return compiled;
}

/** Which engine works out resamples. Null: the kernel where there is one. */
export type EngineKind = Engine["kind"] | null;

/** @throws when the kernel is asked for and there is none */
export function engineFor(problem: Problem, kind: EngineKind = null): Engine {
  if (kind === "plain") return new PlainEngine(problem);
  const wasm = kernel();
  if (wasm) return new KernelEngine(wasm, problem);
  if (kind === "kernel") throw new Error("WebAssembly with SIMD is not available");
  return new PlainEngine(problem);
}
