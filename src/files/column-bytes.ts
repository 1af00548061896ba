import { z } from "zod";
import type { ResponseColumn } from "@/study/model/response-column";

/**
 * Columns on the wire. A 4-byte little-endian length, a JSON head of that length ({ columns: [{ name, rows, texts, decimal }] }),
 * zero bytes up to the next multiple of 8, then for each column its float64 values (little-endian), its state bytes,
 * and zero bytes up to the next multiple of 8.
 */
const Head = z.strictObject({
  columns: z.array(
    z.strictObject({ name: z.string(), rows: z.int().min(0), texts: z.array(z.string()), decimal: z.enum([".", ","]).optional() }),
  ),
});

const aligned = (at: number) => Math.ceil(at / 8) * 8;

/** Columns → bytes. */
export function encodeColumns(columns: readonly ResponseColumn[]): Uint8Array<ArrayBuffer> {
  const head = new TextEncoder().encode(
    JSON.stringify({
      columns: columns.map((c) => ({ name: c.name, rows: c.values.length, texts: c.texts, decimal: c.decimal })),
    }),
  );
  const size = columns.reduce((at, c) => aligned(at + c.values.length * 9), aligned(4 + head.length));
  const bytes = new Uint8Array(size);
  new DataView(bytes.buffer).setUint32(0, head.length, true);
  bytes.set(head, 4);
  let at = aligned(4 + head.length);
  for (const c of columns) {
    bytes.set(new Uint8Array(c.values.buffer, c.values.byteOffset, c.values.byteLength), at);
    bytes.set(c.states, at + c.values.byteLength);
    at = aligned(at + c.values.length * 9);
  }
  return bytes;
}

/** Bytes → columns, which stay where the bytes are: in shared memory, where that is shared. @throws RangeError or ZodError when the bytes are cut short or malformed */
export function decodeColumns(buffer: ArrayBufferLike): ResponseColumn[] {
  const length = new DataView(buffer).getUint32(0, true);
  const words = Uint8Array.from(new Uint8Array(buffer, 4, length)); // a copy: shared memory is not decoded
  const head = Head.parse(JSON.parse(new TextDecoder().decode(words)));
  let at = aligned(4 + length);
  return head.columns.map(({ name, rows, texts, decimal }) => {
    const values = new Float64Array(buffer, at, rows);
    const states = new Uint8Array(buffer, at + rows * 8, rows);
    at = aligned(at + rows * 9);
    return { name, values, states, texts, ...(decimal && { decimal }) };
  });
}
