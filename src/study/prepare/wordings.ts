/** A wording parted into what is asked of all items of a question and the item itself. */
export interface Wording {
  question: string;
  label: string;
}

/** How a stem and its item are put together: "stem [item]", "stem - item", "stem: item", "stem | item", "stem / item", "item [stem]" is not parted. */
const PARTED: readonly RegExp[] = [
  /^(.{3,}?)\s*\[([^\]]+)\]\s*$/su,
  /^(.{3,})\s+[-–—]\s+(\S.*)$/su,
  /^(.{3,})\s*\|\s*(\S.*)$/su,
  /^(.{8,}?[.?!…:])\s+(\S.*)$/su,
];

/** Tidies a wording as programs write it: tags, signs for blanks, blanks doubled. */
export function tidyWording(text: string): string {
  return text
    .replace(/<[^>]{1,200}>/g, " ")
    .replace(/&nbsp;|\u00a0/g, " ")
    .replace(/&amp;/g, "&")
    .replace(/&quot;/g, '"')
    .replace(/\s+/g, " ")
    .trim();
}

/**
 * Parts wordings where at least two columns share the same beginning. A beginning that nobody shares stays with its wording: a hyphen makes no question.
 * @param wordings in the order of the columns
 */
export function partWordings(wordings: readonly string[]): Wording[] {
  const tidied = wordings.map(tidyWording);
  const parted = tidied.map((text) =>
    PARTED.flatMap((pattern) => {
      const match = pattern.exec(text);
      return match ? [{ question: match[1]!.trim().replace(/\s*[-–—:|]$/, ""), label: match[2]!.trim() }] : [];
    }),
  );
  const shared = new Map<string, Set<string>>();
  for (const ways of parted)
    for (const { question, label } of ways) {
      const items = shared.get(question) ?? new Set();
      items.add(label);
      shared.set(question, items);
    }
  return tidied.map((label, at) => {
    const way = parted[at]!.find(({ question }) => shared.get(question)!.size >= 2);
    return way ?? { question: "", label };
  });
}

/** Words that name nothing: of four languages that surveys come in most, with those that surveys themselves use. */
const EMPTY = new Set(
  (
    "a an and are as at be been but by can could did do does for from had has have how i if in into is it its me my of on or our so than that the their them there they this to up us was we were what when where which who why will with would you your yourself about " +
    "agree disagree statement statements following please indicate rate extent much many often likely think feel level question questions answer answers each below describe describes apply applies use using scale would select choose tick all one best item items true say currently during past last week weeks month months year years time times " +
    "der die das den dem des ein eine einen einem einer und oder ist sind war wie was wer wo warum welche welcher welches sie ihr ihre ihren ich mich mir mein meine es er wir uns in im an am auf aus bei mit nach von vor zu zum zur für über nicht sehr bitte geben inwieweit inwiefern stimmen aussage aussagen folgenden folgende zutrifft trifft wurde wird sich dass haben hat " +
    "le la les un une des du de et ou est sont que qui quoi comment vous votre vos je mon ma mes il elle nous dans sur avec pour par pas plus veuillez indiquer " +
    "el los las una unos del y o es son que cómo cuál su sus usted mi mis en con por para no más indique favor"
  ).split(" "),
);

/** The words of a wording that name something, in its order, as a name can have them. */
export function namingWords(text: string): string[] {
  return text
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .replace(/ß/g, "ss")
    .replace(/ı/g, "i")
    .replace(/ł/g, "l")
    .toLocaleLowerCase("en")
    .split(/[^\p{L}\d]+/u)
    .filter((word) => word.length > 1 && !EMPTY.has(word) && !/^\d+$/.test(word));
}

/** Short names for variables from their wordings: those of one question are numbered under the word that names it. Never one that is taken. */
export function namesFromWordings(wordings: readonly Wording[], taken: readonly string[] = []): string[] {
  const used = new Set(taken.map((name) => name.toLocaleLowerCase()));
  const stems = new Map<string, string>();
  const counts = new Map<string, number>();
  const free = (stem: string) => {
    let name = stem;
    for (let k = 2; used.has(name.toLocaleLowerCase()); k++) name = `${stem}_${k}`;
    used.add(name.toLocaleLowerCase());
    return name;
  };
  const others = namesOfQuestions(wordings);
  return wordings.map(({ question, label }, at) => {
    if (question === "") return free(namingWords(label).slice(0, 2).join("_").slice(0, 24) || `q${at + 1}`);
    const stem = stems.get(question) ?? freeStem(others.get(question)!, new Set(stems.values()));
    stems.set(question, stem);
    const k = (counts.get(stem) ?? 0) + 1;
    counts.set(stem, k);
    return free(`${stem}_${k}`);
  });
}

function freeStem(stem: string, taken: ReadonlySet<string>): string {
  let name = stem;
  for (let k = 2; taken.has(name); k++) name = `${stem}${String.fromCharCode(96 + k)}`;
  return name;
}

/** The word that names each question: of its own words the last that no other question has; else of its items' words the one most of them share. */
function namesOfQuestions(wordings: readonly Wording[]): Map<string, string> {
  const questions = [...new Set(wordings.map(({ question }) => question).filter((question) => question !== ""))];
  const words = new Map(questions.map((question) => [question, namingWords(question)]));
  return new Map(
    questions.map((question, at) => {
      const own = words
        .get(question)!
        .filter((word) => questions.every((other) => other === question || !words.get(other)!.includes(word)));
      const items = wordings.filter((one) => one.question === question).map(({ label }) => new Set(namingWords(label)));
      const counts = new Map<string, number>();
      for (const item of items) for (const word of item) counts.set(word, (counts.get(word) ?? 0) + 1);
      const common = [...counts].filter(([, count]) => count >= Math.max(2, 0.5 * items.length)).sort((a, b) => b[1] - a[1])[0]?.[0];
      const name = own.at(-1) ?? common ?? words.get(question)!.at(-1) ?? `q${at + 1}`;
      return [question, name.slice(0, 18)];
    }),
  );
}
