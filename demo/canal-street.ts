import { type RandomStream, randomStream } from "@/core/random/random-stream";
import { PLANTED, SCALES, TRUE_PARAMETERS as TRUE } from "./true-parameters";

const FAMILIES = ["Romance", "Slavic", "Turkic", "Semitic", "Indo-Iranian", "Sino-Tibetan"];

/** The header of the demo's CSV file. */
export const HEADER = [
  "learner",
  "class",
  "format",
  "returning",
  "language_family",
  "age",
  "months_enrolled",
  "practice_hours",
  ...SCALES.flatMap((s) => s.items.map((_, i) => `${s.prefix}${i + 1}`)),
  "correcting",
  "oral_exam",
];

type Latent = Record<"confidence" | "anxiety" | "support" | "belonging" | "willingness", number>;

/** The whole made-up data file, header and rows, as CSV. The same on every machine. */
export function canalStreetCsv(): string {
  const random = randomStream(TRUE.seed);
  const classes = Array.from({ length: TRUE.classes }, () => ({
    format: pick(random, TRUE.formats),
    support: TRUE.classEffect * random.normal(),
    belonging: TRUE.classEffect * random.normal(),
  }));
  const rows = Array.from({ length: TRUE.learners }, (_, i) => learner(random, i + 1, classes));
  for (const row of PLANTED.duplicates) rows.push([...rows[row - 1]!]);
  return [HEADER, ...rows].map((cells) => cells.join(",")).join("\n") + "\n";
}

function learner(random: RandomStream, row: number, classes: { format: string; support: number; belonging: number }[]): string[] {
  const classIndex = random.below(classes.length);
  const { format, support: classSupport, belonging: classBelonging } = classes[classIndex]!;
  const age = Math.round(Math.min(74, 18 + 9 * Math.exp(0.85 + 0.45 * random.normal())));
  const months = Math.max(1, Math.round(Math.exp(2.1 + 0.7 * random.normal())));
  const practice = Math.max(0, Math.round(2 * (4.5 + 2.4 * random.normal())) / 2);
  const [monthsZ, practiceZ, ageZ] = [(Math.log(months) - 2.1) / 0.7, (practice - 4.5) / 2.4, (age - 42) / 13];
  const support = Math.sqrt(1 - TRUE.classEffect ** 2) * random.normal() + classSupport;
  const anxiety = random.normal();
  const correctingLatent = random.normal();
  const c = TRUE.confidence;
  const confidence = c.support * support + c.anxiety * anxiety + 0.8 * random.normal();
  const belonging = TRUE.belonging.support * support + classBelonging + 0.75 * random.normal();
  const w = TRUE.willingness;
  const slope = w.confidence + TRUE.slopeByFormat[format as keyof typeof TRUE.slopeByFormat];
  const willingness =
    slope * confidence +
    w.support * support +
    w.product * confidence * support +
    w.anxiety * anxiety +
    w.belonging * belonging +
    w.months * monthsZ +
    w.age * ageZ +
    w.residualSd * random.normal();
  const x = TRUE.exam;
  const exam =
    x.mean +
    x.sd *
      (x.confidence * confidence +
        x.practice * practiceZ +
        x.months * monthsZ +
        x.willingness * willingness +
        x.residualSd * random.normal());
  const latent: Latent = { confidence: confidence + c.correcting * correctingLatent, anxiety, support, belonging, willingness };

  const items = SCALES.flatMap((scale) =>
    scale.items.map(([, reversed]) => {
      const answer = answerOf(random, latent[scale.latent], scale.low, scale.high, reversed);
      const luck = random.uniform();
      if (luck < TRUE.notAnswered.code) return "-9";
      return luck < TRUE.notAnswered.code + TRUE.notAnswered.empty ? "" : String(answer);
    }),
  );
  const notKnown = () => random.uniform() < TRUE.notKnown;
  const correcting = answerOf(random, 1.3 * correctingLatent, 1, 7, false, 0.25);
  const cells = [
    `L${String(row).padStart(3, "0")}`,
    `K${String(classIndex + 1).padStart(2, "0")}`,
    format,
    random.uniform() < 0.37 ? "yes" : "no",
    FAMILIES[Math.min(FAMILIES.length - 1, Math.floor(FAMILIES.length * random.uniform() ** 1.4))]!,
    String(age),
    notKnown() ? "99" : String(Math.min(months, 96)),
    notKnown() ? "99" : String(practice),
    ...items,
    String(correcting),
    random.uniform() < 0.025 ? "" : Math.min(100, Math.max(0, exam)).toFixed(1),
  ];
  return withDirt(cells, row);
}

function answerOf(random: RandomStream, latent: number, low: number, high: number, reversed: boolean, noise = 0.75): number {
  const middle = (low + high) / 2 + (high - low) * 0.04;
  const reach = (high - low) / 4.4;
  const answer = Math.min(high, Math.max(low, Math.round(middle + reach * (0.95 * latent + noise * random.normal()))));
  return reversed ? low + high - answer : answer;
}

function withDirt(cells: string[], row: number): string[] {
  const first = HEADER.indexOf("SC1");
  const last = HEADER.indexOf("WS6");
  if (row === PLANTED.textAge.row) cells[HEADER.indexOf("age")] = PLANTED.textAge.value;
  if (row === PLANTED.outOfRange.row) cells[HEADER.indexOf(PLANTED.outOfRange.variable)] = PLANTED.outOfRange.value;
  if ((PLANTED.straightLiners as readonly number[]).includes(row)) cells.fill("4", first, last + 1);
  if (row === PLANTED.nothingAnswered) cells.fill("", HEADER.indexOf("age"));
  return cells;
}

function pick(random: RandomStream, shares: Record<string, number>): string {
  let u = random.uniform();
  for (const [name, share] of Object.entries(shares)) {
    u -= share;
    if (u < 0) return name;
  }
  return Object.keys(shares)[0]!;
}
