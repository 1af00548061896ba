import { columnFacts } from "@/files/column-facts";
import type { ColumnChunk } from "@/files/column-builder";
import { ImportFaultError } from "@/files/reading/import-fault";
import { openTable } from "@/files/reading/open-table";
import { readTable, type TableData } from "@/files/reading/read-table";
import type { TableOptions } from "@/files/reading/table-options";
import { understandFile } from "@/files/reading/understand-file";
import type { Variable } from "@/study/model/variable";
import { guessCodebook } from "@/study/prepare/guess-codebook";
import type { ReaderAnswer, ReaderJob, ReadTable } from "./messages";

/**
 * The process that reads people's files: one of its own, with a limit of its memory, so that a file made to do harm can be stopped in the middle of a line of
 * code and takes nothing with it. It knows no study and opens no database.
 */
process.on("disconnect", () => process.exit());
process.on("message", (message: ReaderJob) => {
  if (message.job === "next") taken?.();
  else void carryOut(message);
});

/** Hands on that the batch on its way has been taken. */
let taken: (() => void) | null = null;
const say = (answer: ReaderAnswer) => new Promise<void>((resolve) => process.send!(answer, undefined, {}, () => resolve()));

async function carryOut(job: Exclude<ReaderJob, { job: "next" }>): Promise<void> {
  try {
    if (job.job === "understand")
      await say({ answer: "understood", understanding: await understandFile(job.path, job.given), held: held() });
    else await say({ answer: "read", table: await read(job.path, job.options), held: held() });
  } catch (error) {
    if (error instanceof ImportFaultError)
      await say({ answer: "fault", code: error.code, message: error.message, line: error.line, held: held() });
    else await say({ answer: "broken", kind: error instanceof Error ? error.name : typeof error, stack: stackOf(error) });
  }
}

const held = () => process.memoryUsage.rss() / 1e6;

function stackOf(error: unknown): string {
  const lines = error instanceof Error ? (error.stack ?? "").split("\n") : [];
  return lines
    .filter((line) => line.startsWith("    at "))
    .slice(0, 8)
    .join("\n");
}

/** So many bytes of chunks are on their way at once: the server writes them in one go. */
const BATCH_BYTES = 600_000;

async function read(path: string, options: TableOptions): Promise<ReadTable> {
  const file = await openTable(path);
  try {
    const chunks: ColumnChunk[] = [];
    const hand = async () => {
      while (chunks.length > 0) {
        let bytes = 0;
        const fits = chunks.findIndex((chunk) => (bytes += chunk.values.byteLength + chunk.states.byteLength) > BATCH_BYTES);
        const batch = chunks.splice(0, fits < 0 ? chunks.length : Math.max(1, fits));
        const gone = new Promise<void>((resolve) => (taken = resolve));
        await say({ answer: "chunks", chunks: batch });
        await gone;
      }
    };
    let told = 0;
    const data = await readTable(file, options, (chunk) => chunks.push(chunk), {
      progress: async (rows) => {
        await hand();
        if (Date.now() - told < 100) return;
        told = Date.now();
        await say({ answer: "rows", rows });
      },
    });
    await hand();
    const columns = data.columns.map(({ name, texts, summary }) => ({ name, texts: JSON.stringify(texts), summary }));
    return {
      rows: data.rows,
      chunkRows: data.chunkRows,
      columns,
      codebook: firstCodebook(data, file.codebook(options.sheet)),
      title: file.title,
    };
  } finally {
    file.close();
  }
}

/** What came with the file, completed by guesses; a column of percentages has their sign for its unit. */
function firstCodebook(data: TableData, said: readonly Variable[]): Variable[] {
  const described = new Map(said.map((v) => [v.name, v]));
  return guessCodebook(data.columns.map(columnFacts)).map((guess, at) => {
    const unit = data.facts.percents.has(at) ? "%" : guess.unit;
    return described.get(guess.name) ?? { ...guess, unit };
  });
}

void say({ answer: "ready" });
