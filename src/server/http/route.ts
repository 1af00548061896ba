import { z } from "zod";
import { ImportFaultError } from "@/files/import-fault";
import { EditRefusedError } from "@/study/model/edit";
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
      return answer(name, error);
    }
  };
}

function fault(status: number, body: Fault): Response {
  return Response.json(body, { status });
}

function answer(name: string, error: unknown): Response {
  if (error instanceof ImportFaultError) return fault(422, { code: error.code, message: error.message });
  if (error instanceof EditRefusedError) return fault(422, { code: error.code, message: error.message });
  if (error instanceof StaleRevisionError) return fault(409, { code: error.code, message: error.message });
  if (error instanceof NotFoundError) return fault(404, { code: error.code, message: error.message });
  if (error instanceof z.ZodError) {
    const places = error.issues.map((issue) => `${issue.path.join(".") || "request"}: ${issue.message}`);
    return fault(400, { code: "malformed-request", message: `The request could not be understood (${places.join("; ")}).` });
  }
  if (error instanceof Error && error.name === "AbortError") return new Response(null, { status: 499 }); // the sender went away
  if (error instanceof SyntaxError || error instanceof URIError)
    return fault(400, { code: "malformed-request", message: "The request could not be understood." });
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
  return fault(500, { code, message });
}
