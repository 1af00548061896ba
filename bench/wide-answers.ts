import { once } from "node:events";
import { createWriteStream } from "node:fs";
import { randomStream } from "@/core/random/random-stream";

/** Writes made-up answers: a code, answers 1 to 7 with gaps, decimals and words, `columns` in all. */
export async function writeWideAnswers(file: string, rows: number, columns: number): Promise<void> {
  const random = randomStream(2419);
  const out = createWriteStream(file);
  out.write(`${["respondent", ...Array.from({ length: columns - 1 }, (_, i) => `q${i + 1}`)].join(",")}\n`);
  const formats = ["online", "in person", "blended"];
  for (let row = 0; row < rows; row++) {
    const cells = [`R${row + 1}`];
    for (let k = 1; k < columns; k++) {
      if (k % 20 === 0) cells.push(formats[random.below(3)]!);
      else if (k % 10 === 0) cells.push((random.normal() * 15 + 50).toFixed(2));
      else cells.push(random.below(20) === 0 ? "" : String(1 + random.below(7)));
    }
    if (!out.write(`${cells.join(",")}\n`)) await once(out, "drain");
  }
  out.end();
  await once(out, "finish");
}
