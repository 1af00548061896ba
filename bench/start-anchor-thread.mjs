import { register } from "tsx/esm/api";

register();
await import("./anchor-thread.ts");
