import { once } from "node:events";
import { createWriteStream } from "node:fs";
import { randomStream } from "@/core/random/random-stream";

const AGREE = ["Strongly disagree", "Disagree", "Somewhat disagree", "Neither agree nor disagree", "Somewhat agree", "Agree", "Strongly agree"]; // prettier-ignore

/** Writes made-up answers: a code, answers 1 to 7 with gaps, decimals and words, `columns` in all. @param inWords the answers as words, below a row of wordings */
export async function writeWideAnswers(file: string, rows: number, columns: number, inWords = false): Promise<void> {
  const random = randomStream(2419);
  const out = createWriteStream(file);
  out.write(`${["respondent", ...Array.from({ length: columns - 1 }, (_, i) => `q${i + 1}`)].join(",")}\n`);
  if (inWords)
    out.write(
      `${["Respondent", ...Array.from({ length: columns - 1 }, (_, i) => `How much do you agree? - Statement number ${i + 1} of the survey`)].join(",")}\n`,
    );
  const formats = ["online", "in person", "blended"];
  for (let row = 0; row < rows; row++) {
    const cells = [`R${row + 1}`];
    for (let k = 1; k < columns; k++) {
      if (k % 20 === 0) cells.push(formats[random.below(3)]!);
      else if (k % 10 === 0) cells.push((random.normal() * 15 + 50).toFixed(2));
      else {
        const answer = random.below(20) === 0 ? -1 : random.below(7);
        cells.push(answer < 0 ? "" : inWords ? AGREE[answer]! : String(1 + answer));
      }
    }
    if (!out.write(`${cells.join(",")}\n`)) await once(out, "drain");
  }
  out.end();
  await once(out, "finish");
}
