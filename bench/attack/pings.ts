import { Worker } from "node:worker_threads";

/** Asks again and again from a thread of its own, so that what this one does meanwhile is not taken for the server's delay. */
const ASKING = `
const { parentPort, workerData } = require("node:worker_threads");
let longest = 0;
parentPort.on("message", () => { parentPort.postMessage(longest); longest = 0; });
(async () => {
  for (;;) {
    const asked = performance.now();
    await fetch(workerData.address, { headers: { authorization: "Bearer " + workerData.key } }).then((a) => a.arrayBuffer()).catch(() => null);
    longest = Math.max(longest, performance.now() - asked);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
})();`;

/** @returns a way to hear the longest wait since it was last asked, in ms, and one to end */
export function pings(address: string, key: string): { longest: () => Promise<number>; end: () => Promise<number> } {
  const worker = new Worker(ASKING, { eval: true, workerData: { address, key } });
  const longest = () =>
    new Promise<number>((resolve) => {
      worker.once("message", resolve);
      worker.postMessage("longest");
    });
  return { longest, end: () => worker.terminate() };
}
