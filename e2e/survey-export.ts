import { randomStream } from "../src/core/random/random-stream";

const AGREE = ["Strongly disagree", "Disagree", "Neither agree nor disagree", "Agree", "Strongly agree"];
const OFTEN = ["Never", "Rarely", "Sometimes", "Often", "Always"];
const BELONGING = ["I look forward to the next evening", "Others notice when I am away", "I am one of the class", "I could be gone and nobody would know"]; // prettier-ignore
const SPEAKING = ["I speak before I am sure", "I ask when I do not understand", "I start a conversation in the break", "I speak with neighbours in the new language"]; // prettier-ignore
const TUTOR = ["The tutor explains until I understand", "The tutor takes mistakes as steps", "The tutor knows what I find hard", "The tutor has time for questions"]; // prettier-ignore

/**
 * Answers of 260 respondents as a survey platform exports them: names, wordings and notes in three rows, answers in words, Windows line ends. Made up from a seed:
 * what belongs together goes together, so that there is a reliability and a regression to be had.
 */
export function surveyExport(): Buffer {
  const stream = randomStream(1860);
  const cut = (z: number) => (z < -1.3 ? 0 : z < -0.5 ? 1 : z < 0.3 ? 2 : z < 1.2 ? 3 : 4);
  const rows = Array.from({ length: 260 }, (_, row) => {
    const [warm, support] = [stream.normal(), stream.normal()];
    const item = (on: number, turned = false) => cut((turned ? -0.9 : 0.9) * on + 0.7 * stream.normal());
    const belonging = BELONGING.map((_, i) => item(0.7 * warm + 0.7 * support, i === 3));
    const speaking = SPEAKING.map(() => item(warm));
    const tutor = TUTOR.map(() => item(support));
    const words = (all: readonly number[], scale: readonly string[]) =>
      all.map((at) =>
        stream.uniform() < 0.03
          ? stream.uniform() < 0.5
            ? "Prefer not to say"
            : ""
          : stream.uniform() < 0.05
            ? `${scale[at]!} `
            : scale[at]!,
      );
    const hours = Math.max(0, Math.round((3 + warm + stream.normal()) * 10) / 10);
    const exam = Math.round(60 + 6 * warm + 5 * support + 8 * stream.normal());
    const minute = 5 + stream.below(50);
    return [
      `R_${(row * 7919 + 104_729).toString(36)}`,
      `2026-03-${String(1 + (row % 28)).padStart(2, "0")} 18:05:10`,
      `2026-03-${String(1 + (row % 28)).padStart(2, "0")} 18:${String(minute).padStart(2, "0")}:40`,
      row % 40 === 7 ? "64" : "100",
      ...words(belonging, AGREE),
      ...words(speaking, OFTEN),
      ...words(tutor, AGREE),
      row % 50 === 3 ? "Disagree" : "Agree",
      row % 3 === 0 ? `${hours} h` : row % 3 === 1 ? `about ${hours}` : `${hours} hours`,
      ["online", "in person", "hybrid"][row % 3]!,
      String(exam),
    ];
  });
  const asked = (stem: string, items: readonly string[]) => items.map((item) => `${stem} - ${item}`);
  const names = ["ResponseId", "StartDate", "EndDate", "Progress", ...["q2", "q3", "q4"].flatMap((q) => [1, 2, 3, 4].map((i) => `${q}_${i}`)), "q5", "q6", "q7", "exam"]; // prettier-ignore
  const wordings = ["Response ID", "Start Date", "End Date", "Progress", ...asked("How much do you agree with these statements about belonging?", BELONGING), ...asked("How often is this true of your speaking?", SPEAKING), ...asked("How much do you agree with these statements about your tutor?", TUTOR), 'To see that you read: please choose "Agree" here.', "Hours of practice in a usual week", "Class format", "Points in the oral exam"]; // prettier-ignore
  const notes = names.map((name) => `{"ImportId":"${name}"}`);
  const quote = (cell: string) => (/[",\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);
  return Buffer.from([names, wordings, notes, ...rows].map((row) => row.map(quote).join(",")).join("\r\n"));
}
