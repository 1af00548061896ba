import type { z } from "zod";

/** A body larger than the route takes. */
export class BodyTooLargeError extends Error {
  readonly code = "too-large";
  constructor(readonly details: { most: number }) {
    super(
      `The request is larger than the ${Math.round(details.most / 1000).toLocaleString("en")} kB that are taken here. Nothing was changed.`,
    );
  }
}

/**
 * The body of a request as JSON of a shape, read no further than the limit.
 * @param most bytes
 * @throws BodyTooLargeError, SyntaxError, ZodError
 */
export async function readJson<T>(request: Request, shape: z.ZodType<T>, most: number): Promise<T> {
  const announced = Number(request.headers.get("content-length") ?? 0);
  if (announced > most) throw new BodyTooLargeError({ most });
  const pieces: Uint8Array[] = [];
  let size = 0;
  for await (const piece of request.body ?? []) {
    size += piece.length;
    if (size > most) throw new BodyTooLargeError({ most });
    pieces.push(piece);
  }
  return shape.parse(JSON.parse(Buffer.concat(pieces).toString("utf8")));
}
