/** `npm run compute`: see src/compute/node/compute-command.ts, which says what it takes. */
import path from "node:path";
import { pathToFileURL } from "node:url";
import buildKernel from "./build-kernel.mjs";
import { bundle } from "./bundle.mjs";

buildKernel();
await import(pathToFileURL(path.join(await bundle(), "compute.mjs")).href);
