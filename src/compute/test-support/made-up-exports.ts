import { randomStream } from "@/core/random/random-stream";

/**
 * Exports as survey platforms write them, all made up from a seed: header rows of many kinds, answers in the words of ten languages, clutter. Each says how it is
 * meant to be understood; its words are written down here and not taken from the list the product knows.
 */
export interface MadeUpExport {
  name: string;
  content: Uint8Array;
  meant: {
    headerRow: number;
    wordingRow: number | null;
    rows: number;
    /** Words of questions answered alike, with the number each is meant to get; by place of the column, from 0. */
    sets: { columns: number[]; values: Record<string, number> }[];
    /** Families in words that have no known order, or of which nobody chose an end: these are to be asked about. */
    asked: number[][];
    /** Numbers with words around them, with what each is meant to be; null: not to be read. */
    amounts: { column: number; values: (number | null)[] }[];
    choices: { column: number; answers: string[] }[];
    ticks: number[][];
    ranges: { columns: number[]; low: number; high: number }[];
    /** Columns that must be called a code, a date or a text. */
    kinds: Record<number, string>;
  };
}

const SCALES: Record<string, string[][]> = {
  en: [
    ["Strongly disagree", "Disagree", "Neither agree nor disagree", "Agree", "Strongly agree"],
    ["Never", "Rarely", "Sometimes", "Often", "Always"],
    ["Very dissatisfied", "Dissatisfied", "Neutral", "Satisfied", "Very satisfied"],
    ["Not at all", "A little", "Somewhat", "Quite a bit", "Very much"],
    ["Very unlikely", "Unlikely", "Likely", "Very likely"],
    ["Strongly disagree", "Disagree", "Somewhat disagree", "Neither agree nor disagree", "Somewhat agree", "Agree", "Strongly agree"],
    ["Not at all important", "Slightly important", "Moderately important", "Very important", "Extremely important"],
    ["Poor", "Fair", "Good", "Very good", "Excellent"],
  ],
  de: [
    ["Stimme überhaupt nicht zu", "Stimme eher nicht zu", "Teils, teils", "Stimme eher zu", "Stimme voll und ganz zu"],
    ["Trifft gar nicht zu", "Trifft eher nicht zu", "Trifft eher zu", "Trifft voll zu"],
    ["Nie", "Selten", "Manchmal", "Oft", "Immer"],
    ["Sehr unzufrieden", "Eher unzufrieden", "Weder noch", "Eher zufrieden", "Sehr zufrieden"],
  ],
  fr: [
    ["Pas du tout d'accord", "Plutôt pas d'accord", "Ni d'accord ni pas d'accord", "Plutôt d'accord", "Tout à fait d'accord"],
    ["Jamais", "Rarement", "Parfois", "Souvent", "Toujours"],
  ],
  es: [
    ["Totalmente en desacuerdo", "En desacuerdo", "Ni de acuerdo ni en desacuerdo", "De acuerdo", "Totalmente de acuerdo"],
    ["Nunca", "Casi nunca", "A veces", "Casi siempre", "Siempre"],
  ],
  nl: [
    ["Helemaal mee oneens", "Mee oneens", "Neutraal", "Mee eens", "Helemaal mee eens"],
    ["Nooit", "Zelden", "Soms", "Vaak", "Altijd"],
  ],
  pt: [
    ["Discordo totalmente", "Discordo", "Não concordo nem discordo", "Concordo", "Concordo totalmente"],
    ["Nunca", "Raramente", "Às vezes", "Frequentemente", "Sempre"],
  ],
  it: [
    ["Completamente in disaccordo", "In disaccordo", "Né d'accordo né in disaccordo", "D'accordo", "Completamente d'accordo"],
    ["Mai", "Raramente", "Qualche volta", "Spesso", "Sempre"],
  ],
  pl: [
    ["Zdecydowanie się nie zgadzam", "Raczej się nie zgadzam", "Trudno powiedzieć", "Raczej się zgadzam", "Zdecydowanie się zgadzam"],
    ["Nigdy", "Rzadko", "Czasami", "Często", "Zawsze"],
  ],
  tr: [
    ["Kesinlikle katılmıyorum", "Katılmıyorum", "Kararsızım", "Katılıyorum", "Kesinlikle katılıyorum"],
    ["Hiçbir zaman", "Nadiren", "Bazen", "Sık sık", "Her zaman"],
  ],
  ms: [
    ["Sangat tidak setuju", "Tidak setuju", "Tidak pasti", "Setuju", "Sangat setuju"],
    ["Tidak pernah", "Jarang", "Kadang-kadang", "Kerap", "Sentiasa"],
  ],
};
const APART: Record<string, string> = {
  en: "Prefer not to say",
  de: "Keine Angabe",
  fr: "Ne sait pas",
  es: "No aplica",
  nl: "Niet van toepassing",
  pt: "Prefiro não responder",
  it: "Non so",
  pl: "Nie dotyczy",
  tr: "Belirtmek istemiyorum",
  ms: "Tidak berkaitan",
};
const STEMS = [
  "How much do you agree with these statements about belonging to your class?",
  "Thinking of the last month, how did you feel about speaking?",
  "Please rate the tutors of the evening school",
  "What do you say about homework?",
];
const ITEMS = [
  "I look forward to the next evening",
  "Others in the class notice when I am away",
  "I dare to speak before I am sure",
  "Mistakes make me want to stop",
  "The tutor explains until I understand",
  "I would come again next term",
  "I prepare for the evening at home",
  "The room is a place where I can learn",
];
const REMARKS = ["The room was cold in the second week.", "I liked the walks along the canal a lot!", "More time for questions, please.", "It was hard to come straight from work.", "Thank you for the patience of all tutors.", "Nothing to add, but the coffee was good."]; // prettier-ignore
const ROADS = ["Bus", "Tram", "On foot", "Bicycle", "Car"];
const OWN_WORDS = [
  ["Like a stone", "Like a boat", "Like a bird", "Like a cloud"],
  ["Ebb", "Slack water", "Flood"],
];

const HEADERS = ["names", "names and wordings", "wordings and names", "names, wordings and notes", "wordings"] as const;
const LANGUAGES = Object.keys(SCALES);

class Maker {
  private readonly stream;
  constructor(seed: number) {
    this.stream = randomStream(seed);
  }
  whole = (below: number) => Math.floor(this.stream.uniform() * below);
  chance = (share: number) => this.stream.uniform() < share;
  of = <T>(all: readonly T[]): T => all[this.whole(all.length)]!;
}

interface Column {
  name: string;
  wording: string;
  cell(row: number): string;
}

/** The export of a number, from 0. */
export function madeUpExport(k: number): MadeUpExport {
  const make = new Maker(7000 + k);
  const rows = 30 + make.whole(120);
  const language = LANGUAGES[k % LANGUAGES.length]!;
  const header = HEADERS[Math.floor(k / 2) % HEADERS.length]!;
  const columns: Column[] = [];
  const meant: MadeUpExport["meant"] = {
    headerRow: 1,
    wordingRow: null,
    rows,
    sets: [],
    asked: [],
    amounts: [],
    choices: [],
    ticks: [],
    ranges: [],
    kinds: {},
  };
  const put = (name: string, wording: string, cell: Column["cell"]) => columns.push({ name, wording, cell }) - 1;
  const cellsOf = (cell: () => string) => {
    const cells = Array.from({ length: rows }, cell);
    return (row: number) => cells[row]!;
  };

  // who, and when
  if (k % 3 === 0) meant.kinds[put("ResponseId", "Response ID", (row) => `R_${(row * 7919 + 104_729).toString(36)}`)] = "code";
  else if (k % 3 === 1) meant.kinds[put("member", "Member number", (row) => String(1000 + row))] = "code";
  if (k % 4 === 0) {
    const moment = (row: number, later: number) =>
      `2026-03-${String(1 + (row % 28)).padStart(2, "0")} 18:${String(10 + later).padStart(2, "0")}:05`;
    meant.kinds[put("StartDate", "Start Date", (row) => moment(row, 0))] = "date";
    const taken = cellsOf(() => String(3 + make.whole(40)));
    meant.kinds[put("EndDate", "End Date", (row) => moment(row, Number(taken(row))))] = "date";
  }

  // families in words, in numbers and in both
  const families = 2 + (k % 2);
  for (let f = 0; f < families; f++) {
    const stem = STEMS[f]!;
    const count = 3 + make.whole(4);
    const styled = (item: string) => (k % 2 === 0 ? `${stem} - ${item}` : `${stem} [${item}]`);
    const place = Array.from({ length: count }, (_, i) => columns.length + i);
    const as = (k + f) % 5;
    const words = SCALES[language]![(k + f) % SCALES[language]!.length]!;
    const skewed = () => Math.min(words.length - 1, Math.floor((make.whole(1000) / 1000 + make.whole(1000) / 1000) * 0.5 * words.length));
    for (let i = 0; i < count; i++) {
      const item = styled(ITEMS[(i + 2 * f) % ITEMS.length]!);
      const name = `q${f + 2}_${i + 1}`;
      // each point is given at least once in a family, as it is among some hundred answers
      const point = (row: number, drawn: number) => (row < words.length && i === 0 ? row : drawn);
      const drawn = Array.from({ length: rows }, skewed);
      const odd = Array.from({ length: rows }, () => make.whole(100));
      const text = (row: number) => {
        const at = point(row, drawn[row]!);
        if (row >= words.length && odd[row]! < 4) return "";
        if (row >= words.length && odd[row]! < 7) return as === 3 ? "" : APART[language]!;
        if (as === 1) return `${at + 1} - ${words[at]}`;
        if (as === 2) return at === 0 || at === words.length - 1 ? `${at + 1} (${words[at]!.toLowerCase()})` : String(at + 1);
        if (as === 3) return String(at);
        return odd[row]! < 15
          ? `${words[at]} `
          : odd[row]! < 20
            ? words[at]!.toUpperCase()
            : odd[row]! < 25
              ? words[at]!.replace(" ", "  ")
              : words[at]!;
      };
      put(name, item, text);
    }
    if (as === 3) meant.ranges.push({ columns: place, low: 0, high: words.length - 1 });
    else {
      const shown = (word: string, at: number) =>
        as === 1 ? `${at + 1} - ${word}` : as === 2 ? `${at + 1} (${word.toLowerCase()})` : word;
      const all = words.map((word, at) => [shown(word, at), at + 1] as const);
      meant.sets.push({ columns: place, values: Object.fromEntries(as === 2 ? [all[0]!, all.at(-1)!] : all) });
    }
  }
  if (k % 7 === 3) {
    const own = OWN_WORDS[k % 2]!;
    const place = [0, 1, 2].map((i) =>
      put(
        `pic_${i + 1}`,
        `Which picture fits? - ${ITEMS[i]!}`,
        cellsOf(() => make.of(own)),
      ),
    );
    meant.asked.push(place);
  }

  if (k % 8 === 7) {
    // nobody went as far as the last point: how many there are cannot be known
    const words = SCALES[language]!.at(-1)!;
    const place = [0, 1, 2].map((i) => put(`last_${i + 1}`, `And at the end? - ${ITEMS[i]!}`, cellsOf(() => words[make.whole(words.length - 1)]!))); // prettier-ignore
    meant.asked.push(place);
  }

  // what else a questionnaire asks
  if (k % 6 === 1)
    put(
      "age",
      "Your age",
      cellsOf(() => make.of(["18-24", "25-34", "35-44", "45 or older"])),
    );
  if (k % 6 === 2) put("consent", "Do you agree to take part?", (row) => (row % 40 === 39 ? "No" : "Yes"));
  if (k % 8 === 5)
    put("check", `Please choose "${SCALES[language]![0]![3]!}" here`, (row) => SCALES[language]![0]![row % 30 === 7 ? 1 : 3]!);
  if (k % 6 === 3) meant.ranges.push({ columns: [0, 1, 2].map((i) => columns.length + i), low: 0, high: 1 });
  if (k % 6 === 3) for (const i of [1, 2, 3]) put(`own_${i}`, `What did you bring? - ${["A book", "A pen", "A friend"][i - 1]!}`, cellsOf(() => make.of(["1", "0"]))); // prettier-ignore
  put(
    "format",
    "Class format",
    cellsOf(() => make.of(["online", "in person", "hybrid"])),
  );
  if (k % 5 === 1) {
    const values = Array.from({ length: rows }, () => make.whole(60) / 10);
    const forms = [(v: number) => `${v} h`, (v: number) => `${v} hours`, (v: number) => `about ${v}`, (v: number) => `~${v} h`];
    const cells = values.map((v, row) => (row % 23 === 11 ? "it depends on the week" : forms[row % forms.length]!(v)));
    meant.amounts.push({
      column: put("practice", "Hours of practice a week", (row) => cells[row]!),
      values: values.map((v, row) => (row % 23 === 11 ? null : v)),
    });
  }
  if (k % 5 === 2) {
    const values = Array.from({ length: rows }, () => 1 + make.whole(40) / 2);
    const cells = values.map((v, row) =>
      row % 2 === 0 ? `${String(v).replace(".", ",")} Std` : `${String(v * 60).replace(".", ",")} Min`,
    );
    meant.amounts.push({ column: put("ueben", "Übungszeit in der Woche", (row) => cells[row]!), values });
  }
  if (k % 5 === 3) {
    const values = Array.from({ length: rows }, () => 1000 + make.whole(4000));
    const cells = values.map((v) => `€ ${Math.floor(v / 1000)}.${String(v % 1000).padStart(3, "0")},00`);
    meant.amounts.push({ column: put("fee", "Fee paid so far", (row) => cells[row]!), values });
  }
  if (k % 4 === 1) {
    const mark = k % 8 === 1 ? "; " : ", ";
    const cell = cellsOf(() => ROADS.filter(() => make.chance(0.4)).join(mark));
    meant.choices.push({ column: put("roads", "How do you come to class? (several answers)", cell), answers: ROADS });
  }
  if (k % 4 === 2)
    meant.ticks.push(
      ROADS.slice(0, 4).map((road, i) =>
        put(
          `way_${i + 1}`,
          `How do you come to class? - ${road}`,
          cellsOf(() => (make.chance(0.4) ? road : "")),
        ),
      ),
    );
  if (k % 3 === 2) meant.kinds[put("remark", "Anything you want to add?", (row) => (row % 3 === 0 ? `${make.of(REMARKS)} ${row}` : ""))] = "text"; // prettier-ignore
  if (k % 6 === 5)
    put(
      "rating",
      "From 0 to 10, how was it?",
      cellsOf(() => String(make.whole(11))),
    );

  return { name: `export ${k}: ${language}, ${header}`, content: written(k, header, columns, rows, meant), meant };
}

/** The table as a file, with the clutter of its kind. */
function written(k: number, header: (typeof HEADERS)[number], columns: Column[], rows: number, meant: MadeUpExport["meant"]): Uint8Array {
  const names = columns.map(({ name }) => name);
  const wordings = columns.map(({ wording }) => wording);
  const notes = names.map((name) => `{"ImportId":"${name.toUpperCase()}"}`);
  const head = { names: [names], "names and wordings": [names, wordings], "wordings and names": [wordings, names], "names, wordings and notes": [names, wordings, notes], wordings: [wordings] }[header]; // prettier-ignore
  const lines: string[][] = [...head, ...Array.from({ length: rows }, (_, row) => columns.map((column) => column.cell(row)))];
  let first = 1;
  const delimiter = ([",", ";", "\t"] as const)[k % 3]!;
  if (k % 9 === 4) {
    lines.unshift(["Evening classes, export of all answers"], []);
    first = 3;
  }
  if (k % 9 === 7) lines.push(["Total", ...columns.slice(1).map((_, i) => String(100 + i))]);
  const spare = k % 5 === 4 ? 3 : 0;
  const at = (wanted: string[]) => first + head.indexOf(wanted);
  meant.headerRow = header === "wordings" ? first : at(names);
  meant.wordingRow = header === "names" ? null : at(wordings);
  const quote = (cell: string) => (/["\n\r,;\t]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);
  const full = first === 3 ? lines.map((line, i) => (i < 2 ? line : [...line, ...Array<string>(spare).fill("")])) : lines.map((line) => [...line, ...Array<string>(spare).fill("")]); // prettier-ignore
  const text = full.map((line) => line.map(quote).join(delimiter)).join(k % 2 === 0 ? "\r\n" : "\n");
  return k % 4 === 3 ? Buffer.from(`\uFEFF${text}`, "utf16le") : Buffer.from(`${k % 2 === 0 ? "\uFEFF" : ""}${text}\n`);
}
