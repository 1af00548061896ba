import pino from "pino";

/** The server's log: one JSON line an event. Requests are logged by route and code, never with what people answered. */
export const log = pino({ level: process.env.BETA_STEP_LOG ?? "info", base: null });
