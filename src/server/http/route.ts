import { z } from "zod";
import { ImportFaultError } from "@/files/reading/import-fault";
import { EditRefusedError } from "@/study/model/edit";
import { NewerDocumentError } from "@/study/model/upgrade";
import { NotFoundError, StaleRevisionError, StoredShapeError } from "../errors";
import { log } from "../log";
import { foreignRequest } from "./same-origin";

/** What the page gets when something could not be done. */
export interface Fault {
  code: string;
  message: string;
}

type Handler<P> = (request: Request, params: P) => Promise<Response> | Response;

/**
 * A route handler with the house rules around it: requests from elsewhere are turned away, known errors become a
 * status and a sentence, unknown ones are logged and become one plain sentence without a stack trace.
 * @param name as it stands in the log
 */
export function route<P>(name: string, handler: Handler<P>) {
  return async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    const foreign = foreignRequest(request);
    if (foreign) return fault(403, { code: "foreign-request", message: foreign });
    try {
      return await handler(request, await context.params);
    } catch (error) {
      if (error instanceof Error && error.name === "AbortError") return new Response(null, { status: 499 }); // the sender went away
      const { status, ...body } = faultOf(name, error);
      return fault(status, body);
    }
  };
}

function fault(status: number, body: Fault): Response {
  return Response.json(body, { status });
}

/** An error as what the page is told: known ones in their own words, unknown ones logged and told in one plain sentence. */
export function faultOf(name: string, error: unknown): Fault & { status: number } {
  const said = (status: number, { code, message }: { code: string; message: string }) => ({ status, code, message });
  if (error instanceof ImportFaultError || error instanceof EditRefusedError) return said(422, error);
  if (error instanceof StaleRevisionError || error instanceof NewerDocumentError) return said(409, error);
  if (error instanceof NotFoundError) return said(404, error);
  if (error instanceof z.ZodError) {
    const places = error.issues.map((issue) => `${issue.path.join(".") || "request"}: ${issue.message}`);
    return said(400, { code: "malformed-request", message: `The request could not be understood (${places.join("; ")}).` });
  }
  if (error instanceof SyntaxError || error instanceof URIError)
    return said(400, { code: "malformed-request", message: "The request could not be understood." });
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
