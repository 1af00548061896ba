import { z } from "zod";
import { ObjectId, Title, VariableName } from "./names";

/**
 * An answer without what does not tell it from others: capitals, blanks at its ends or doubled, the kinds of quotes and dashes, a full stop at its end.
 * "Strongly Agree " and "strongly agree." are one answer.
 */
export function answerKey(written: string): string {
  return written
    .normalize("NFKC")
    .replace(/[‘’ʼ`´]/g, "'")
    .replace(/[“”«»„]/g, '"')
    .replace(/[‐-―−]/g, "-")
    .replace(/\s+/g, " ")
    .trim()
    .toLocaleLowerCase("en")
    .replace(/ı|i\u0307/g, "i") // capitals do not tell the two i of Turkish
    .replace(/(?<=[\p{L})])[.;,:]+$/u, "");
}

/** How an answer in words becomes a number. Answers it does not mention stay words, and are told. */
const WordsRule = z.strictObject({
  kind: z.literal("words"),
  values: z
    .array(z.strictObject({ written: z.string().trim().min(1).max(1000), value: z.number() }))
    .min(1)
    .refine((all) => new Set(all.map((one) => answerKey(one.written))).size === all.length, "An answer has two numbers."),
});

/** How numbers that were typed with words around them are read: "2.2 h", "about 30", "5-6". */
const AmountRule = z.strictObject({
  kind: z.literal("amounts"),
  /** Mark before the fraction; the other one parts thousands. */
  decimal: z.enum([".", ","]),
  /** What the numbers count: "h", "€"; "" for nothing said. Minutes, hours and days are turned into one another; another unit is not read. */
  unit: z.string().trim().max(30).default(""),
  /** "5-6" as its middle, or not at all. */
  spans: z.enum(["middle", "none"]),
});

/** How the answers of some questions are read: a step on top of the file, in which the words stay. */
export const Reading = z.strictObject({
  id: ObjectId,
  /** What the answers say: "Agreement". */
  name: Title,
  variables: z
    .array(VariableName)
    .min(1)
    .max(5000)
    .refine((all) => new Set(all).size === all.length, "A variable is named twice."),
  rule: z.discriminatedUnion("kind", [WordsRule, AmountRule]),
});
export type Reading = z.infer<typeof Reading>;
export type ReadingRule = Reading["rule"];
