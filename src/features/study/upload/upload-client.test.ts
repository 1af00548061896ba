import { takeFile } from "./upload-client";

const OPTIONS = {
  format: "delimited",
  encoding: "utf-8",
  delimiter: ",",
  decimal: ".",
  sheet: null,
  headerRow: 1,
  wordingRow: null,
  leftOutRows: [] as number[],
  totals: "keep",
  width: null,
  names: null,
  shortRows: "refuse",
} as const;
const real = globalThis.fetch;
afterEach(() => (globalThis.fetch = real));

/** A server that answers with these lines, in pieces of a few bytes; `hold` keeps it open at the end. */
function answering(lines: object[], status = 200, hold = false) {
  const bytes = new TextEncoder().encode(lines.map((line) => `${JSON.stringify(line)}\n`).join(""));
  globalThis.fetch = (async (_: string, init: RequestInit) => {
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        for (let at = 0; at < bytes.length; at += 5) controller.enqueue(bytes.slice(at, at + 5));
        init.signal?.addEventListener("abort", () => controller.error(new DOMException("stopped", "AbortError")));
        if (!hold) controller.close();
      },
    });
    return new Response(body, { status });
  }) as typeof fetch;
}
const take = async (signal = new AbortController().signal) => {
  const rows: number[] = [];
  const taken = await takeFile("id", OPTIONS, { kind: "study" }, (n) => rows.push(n), signal);
  return { rows, taken };
};

test("rows are told as they are read, however the answer is cut; the end says what became of the file", async () => {
  answering([{ rows: 1000 }, { rows: 2500 }, { done: { kind: "study", id: "größe" } }]);
  expect(await take()).toEqual({ rows: [1000, 2500], taken: { status: "study", id: "größe" } });
});

test("a fault in the middle, an answer that breaks off, and one that is none of ours are refusals in a sentence", async () => {
  answering([{ rows: 1 }, { fault: { code: "short-row", message: "Row 3 has 1 cell.", status: 422 } }]);
  expect((await take()).taken).toMatchObject({ status: "refused", code: "short-row", message: "Row 3 has 1 cell." });
  answering([{ rows: 1 }]);
  expect((await take()).taken).toMatchObject({ status: "refused", message: expect.stringMatching(/Nothing was kept/) });
  answering([{ done: { kind: "something else" } }]);
  expect((await take()).taken).toMatchObject({ status: "refused" });
  answering([{ code: "not-found", message: "There is no uploaded file." }], 404);
  expect((await take()).taken).toMatchObject({ status: "refused", code: "not-found" });
});

test("Stop ends it at once", async () => {
  answering([{ rows: 7 }], 200, true);
  const stop = new AbortController();
  const taking = take(stop.signal);
  setTimeout(() => stop.abort(), 20);
  expect(await taking).toEqual({ rows: [7], taken: { status: "stopped" } });
});
