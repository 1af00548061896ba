/** A piece of text that is set otherwise than what stands around it. */
export interface Run {
  readonly text: string;
  readonly as: "italic" | "superscript";
}

/** A word that leads to another part of a manuscript: `Table 2`. */
export interface Reference {
  readonly text: string;
  readonly as: "reference";
  /** The block it leads to. */
  readonly to: string;
}

/**
 * Words as they are set: plain text, or pieces of it with runs between. The page and saved tables print them as they come; nobody guesses afterwards which
 * letters are statistical symbols.
 */
export type Words = string | readonly (string | Run | Reference)[];

const italic = (text: string): Run => ({ text, as: "italic" });

/** Statistical symbols as journals set them: Latin letters in italics, Greek ones upright. */
export const SYMBOL = {
  b: italic("b"),
  F: italic("F"),
  M: italic("M"),
  N: italic("N"),
  p: italic("p"),
  r: italic("r"),
  SD: italic("SD"),
  SE: italic("SE"),
  t: italic("t"),
  W: italic("W"),
  z: italic("z"),
} as const;
/** R², ΔR² and the squared part correlation. */
export const R2: Words = [italic("R"), "²"];
export const DELTA_R2: Words = ["Δ", italic("R"), "²"];
export const SR2: Words = [italic("sr"), "²"];

type Piece = Words | Run | Reference | number;

/** A sentence with runs in it: words`Core adds 21 % (${SYMBOL.p} < .001)`. */
export function words(strings: TemplateStringsArray, ...pieces: readonly Piece[]): Words {
  return joined(strings.flatMap((text, i): Piece[] => (i < pieces.length ? [text, pieces[i]!] : [text])));
}

/** Words one after the other, `between` them. */
export function joined(all: readonly Piece[], between = ""): Words {
  const pieces: (string | Run | Reference)[] = [];
  const add = (piece: string | Run | Reference) => {
    const last = pieces.at(-1);
    if (typeof piece === "string" && typeof last === "string") pieces[pieces.length - 1] = last + piece;
    else if (piece !== "") pieces.push(piece);
  };
  all.forEach((piece, i) => {
    if (i > 0 && between !== "") add(between);
    if (typeof piece === "number") add(String(piece));
    else if (typeof piece === "string" || "text" in piece) add(piece);
    else piece.forEach(add);
  });
  return pieces.every((piece) => typeof piece === "string") ? pieces.join("") : pieces;
}

/** The same without its looks: to be copied, searched, or read by a screen reader. */
export function plain(given: Words): string {
  return typeof given === "string" ? given : given.map((piece) => (typeof piece === "string" ? piece : piece.text)).join("");
}

/** A statistic does not break across lines: its spaces are hard ones. */
export const unbroken = (text: string): string => text.replace(/ ([=<]) /g, "\u00a0$1\u00a0").replace(/ (%)/g, "\u00a0$1");

/** The pieces of words in order, plain ones without a look. */
export function runsOf(given: Words): ({ readonly text: string; readonly as: null } | Run | Reference)[] {
  const pieces = typeof given === "string" ? [given] : given;
  return pieces.map((piece) => (typeof piece === "string" ? { text: piece, as: null } : piece));
}
