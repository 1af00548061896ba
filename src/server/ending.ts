import { subscribe } from "node:diagnostics_channel";
import type { IncomingMessage, ServerResponse } from "node:http";
import type { Socket } from "node:net";

/** How long what is still asked may take once the program is told to end: what is not finished then is undone by SQLite, as after a power cut. */
const PATIENCE_MS = 5000;
/** What a program ended by a signal says of it. */
const ENDED_BY = { SIGINT: 130, SIGTERM: 143 };

/**
 * Lets the program end when it is told to. The framework stops listening and waits until every connection is closed; a
 * browser opens some ahead, on which nothing is ever asked, and keeps them for minutes. They are closed here, the others once they are answered.
 */
export function endWhenTold(): void {
  /** How much is being asked on each connection. */
  const asked = new Map<Socket, number>();
  let ending = false;
  const closeIfIdle = (socket: Socket) => {
    if (ending && asked.get(socket) === 0) socket.destroySoon();
  };
  const known = (socket: Socket): number => {
    if (!asked.has(socket)) socket.once("close", () => asked.delete(socket));
    return asked.get(socket) ?? 0;
  };
  subscribe("net.server.socket", (message) => {
    const { socket } = message as { socket: Socket };
    asked.set(socket, known(socket));
    closeIfIdle(socket);
  });
  subscribe("http.server.request.start", (message) => {
    const { request, response } = message as { request: IncomingMessage; response: ServerResponse };
    const { socket } = request;
    asked.set(socket, known(socket) + 1);
    response.once("close", () => {
      const before = asked.get(socket);
      if (before === undefined) return; // the connection went first
      asked.set(socket, before - 1);
      closeIfIdle(socket);
    });
  });
  for (const signal of ["SIGINT", "SIGTERM"] as const)
    process.on(signal, () => {
      if (ending) return; // a terminal tells this program and the one that started it, which tells it again
      ending = true;
      for (const socket of asked.keys()) closeIfIdle(socket);
      setTimeout(() => process.exit(ENDED_BY[signal]), PATIENCE_MS).unref();
    });
}
