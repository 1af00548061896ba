import { z } from "zod";
import { ImportFaultError } from "@/files/reading/import-fault";
import { EditRefusedError } from "@/study/model/edit";
import { NewerDocumentError } from "@/study/model/upgrade";
import { NotFoundError, StaleRevisionError, StoredShapeError } from "../errors";
import { log } from "../log";
import { storageFault } from "../storage-faults";
import { turnedAway } from "./door";
import { BodyTooLargeError } from "./read-json";

/** What the page gets when something could not be done. */
export interface Fault {
  code: string;
  message: string;
}

type Handler<P> = (request: Request, params: P) => Promise<Response> | Response;

/**
 * A route handler with the house rules around it: requests from elsewhere are turned away at the door, known errors become a
 * status and a sentence, unknown ones are logged and become one plain sentence without a stack trace.
 * @param name as it stands in the log
 */
export function route<P>(name: string, handler: Handler<P>) {
  return async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    const away = turnedAway(request);
    if (away) return fault(away.status, away);
    try {
      return guarded(await handler(request, await context.params));
    } catch (error) {
      if (error instanceof Error && error.name === "AbortError") return new Response(null, { status: 499 }); // the sender went away
      const { status, ...body } = faultOf(name, error);
      return fault(status, body);
    }
  };
}

/** Answers are nobody's to keep: what a person said must not lie in a browser's files. */
function guarded(response: Response): Response {
  response.headers.set("x-content-type-options", "nosniff");
  response.headers.set("cache-control", "no-store");
  return response;
}

function fault(status: number, { code, message }: Fault): Response {
  return guarded(Response.json({ code, message: clipped(message) }, { status }));
}

/** So many places or letters of a message are told: a request of a thousand faults is told by its first. */
const MOST_PLACES = 4;
const MOST_LETTERS = 600;

function clipped(message: string): string {
  if (message.length <= MOST_LETTERS) return message;
  return `${message.slice(0, MOST_LETTERS).replace(/\s+\S*$/, "")} …`;
}

/** An error as what the page is told: known ones in their own words, unknown ones logged and told in one plain sentence. */
export function faultOf(name: string, error: unknown): Fault & { status: number } {
  const said = (status: number, { code, message }: { code: string; message: string }) => ({ status, code, message: clipped(message) });
  if (error instanceof ImportFaultError || error instanceof EditRefusedError) return said(422, error);
  if (error instanceof StaleRevisionError) return said(409, error);
  if (error instanceof NewerDocumentError) {
    log.error({ route: name, code: error.code }, "a document of a newer program");
    return said(409, error);
  }
  if (error instanceof NotFoundError) return said(404, error);
  if (error instanceof BodyTooLargeError) return said(413, error);
  if (error instanceof z.ZodError) {
    const places = error.issues.slice(0, MOST_PLACES).map((issue) => `${issue.path.join(".") || "request"}: ${clipped(issue.message)}`);
    const more = error.issues.length > MOST_PLACES ? `; and ${error.issues.length - MOST_PLACES} more places` : "";
    return said(400, { code: "malformed-request", message: `The request could not be understood (${places.join("; ")}${more}).` });
  }
  if (error instanceof SyntaxError || error instanceof URIError)
    return said(400, { code: "malformed-request", message: "The request could not be understood." });
  const fault = storageFault(error);
  if (fault) {
    log.error({ route: name, code: fault.code }, "the store cannot be used");
    return said(fault.status, fault);
  }
  const code = error instanceof StoredShapeError ? error.code : "unexpected";
  // the stack names our files and lines; messages may quote values, so they stay out
  const stack =
    error instanceof Error
      ? error.stack
          ?.split("\n")
          .filter((line) => line.startsWith("    at "))
          .slice(0, 8)
      : undefined;
  log.error({ route: name, code, kind: error instanceof Error ? error.name : typeof error, stack }, "request failed");
  const message =
    error instanceof StoredShapeError ? error.message : "Something went wrong on our side. Nothing was changed; please try again.";
  return said(500, { code, message });
}
