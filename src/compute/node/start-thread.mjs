// A thread does not take over what translates TypeScript in the process that starts it: it registers its own.
import { register } from "tsx/esm/api";

register();
await import("./calc-thread.ts");
