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
    if (job.job === "understand") await say({ answer: "understood", understanding: await understandFile(job.path, job.given) });
    else await say({ answer: "read", table: await read(job.path, job.options) });
  } catch (error) {
    if (error instanceof ImportFaultError) await say({ answer: "fault", code: error.code, message: error.message, line: error.line });
    else await say({ answer: "broken", kind: error instanceof Error ? error.name : typeof error, stack: stackOf(error) });
  }
}

function stackOf(error: unknown): string {
  const lines = error instanceof Error ? (error.stack ?? "").split("\n") : [];
  return lines
    .filter((line) => line.startsWith("    at "))
    .slice(0, 8)
    .join("\n");
}

/** So many bytes of chunks are on their way at once. */
const BATCH_BYTES = 4_000_000;

async function read(path: string, options: TableOptions): Promise<ReadTable> {
  const file = await openTable(path);
  try {
    let chunks: ColumnChunk[] = [];
    let bytes = 0;
    const hand = async () => {
      const batch = chunks;
      [chunks, bytes] = [[], 0];
      const gone = new Promise<void>((resolve) => (taken = resolve));
      await say({ answer: "chunks", chunks: batch });
      await gone;
    };
    let told = 0;
    const data = await readTable(
      file,
      options,
      (chunk) => {
        chunks.push(chunk);
        bytes += chunk.values.byteLength + chunk.states.byteLength;
      },
      {
        progress: async (rows) => {
          if (bytes >= BATCH_BYTES) await hand();
          if (Date.now() - told < 100) return;
          told = Date.now();
          await say({ answer: "rows", rows });
        },
      },
    );
    while (chunks.length > 0) {
      const [now, later] = [chunks.slice(0, 64), chunks.slice(64)];
      chunks = now;
      await hand();
      chunks = later;
    }
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
