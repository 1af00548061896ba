/**
 * `npm run demo`: installs, builds, loads the demo study and starts Beta Step on this machine. PORT chooses the port
 * (3000, or the next free one); BETA_STEP_DATA the folder of the data.
 */
import { spawn, spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { createServer } from "node:net";
import path from "node:path";
import { build, install } from "./make-ready.mjs";
import { toolArguments } from "./tools.mjs";

const HOST = "127.0.0.1";

function free(port) {
  return new Promise((resolve) => {
    const probe = createServer()
      .once("error", () => resolve(false))
      .once("listening", () => probe.close(() => resolve(true)));
    probe.listen(port, HOST);
  });
}

async function choosePort() {
  const wanted = Number(process.env.PORT ?? 3000);
  for (let port = wanted; port < wanted + 50; port++) if (await free(port)) return port;
  throw new Error(`No free port between ${wanted} and ${wanted + 49}.`);
}

/** The key that lets in, as the end of an address: without it others on this machine could look in. */
function key() {
  if (process.env.BETA_STEP_KEY === "off") return "";
  return `?key=${readFileSync(path.join(process.env.BETA_STEP_DATA ?? "data", "key"), "utf8").trim()}`;
}

install();
build();
const loaded = spawnSync(process.execPath, toolArguments("tsx", ["demo/load-demo.ts"]), {
  encoding: "utf8",
  stdio: ["ignore", "pipe", "inherit"],
});
if (loaded.status !== 0) process.exit(loaded.status ?? 1);
const study = loaded.stdout.trim().split("\n").at(-1);
const port = await choosePort();
const server = spawn(process.execPath, toolArguments("next", ["start", "-H", HOST, "-p", String(port)]), {
  stdio: ["ignore", "pipe", "inherit"],
});
server.stdout.on("data", (text) => {
  if (String(text).includes("Ready")) {
    process.stdout.write(
      `\nBeta Step is running at http://${HOST}:${port}/${key()}\nThe demo study: http://${HOST}:${port}/studies/${study}/ladders${key()}\nStop it with Ctrl+C.\n`,
    );
  }
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
