import type { Block, BlockContent, BlockOf, Prose, ProsePiece } from "../../model/block";
import type { PrintedCells, PrintedFigure } from "../../model/printed";
import { keptCells, type PrintTable } from "../print-table";
import { plain, type Words } from "../words";
import { FIGURES, keptFigure } from "./figures";
import { namesIn, NumberFinder } from "./numbers-in";
import { type LiveNumber, liveNumbers } from "./live-numbers";
import { composedSentences } from "./paragraphs";
import type { Source } from "./source";
import { TABLES } from "./tables";

/** One thing that a block shows otherwise than it stands now. */
export interface BlockChange {
  /** Where: a row and a column, or the words around. */
  readonly where: string;
  readonly from: string;
  readonly to: string;
}

/** How a block stands to the study. */
export type BlockStand =
  /** Its result is not there yet. */
  | { readonly state: "waiting" }
  /** What it is of is not in the study any more, or cannot be worked out. */
  | { readonly state: "gone" }
  | { readonly state: "current" }
  | {
      readonly state: "changed";
      readonly changes: readonly BlockChange[];
      /** A person's words that stand around sentences which now read otherwise: what they were composed as, and are now. */
      readonly wording: readonly { readonly was: string; readonly is: string }[];
      /** The block as it is brought up to date. */
      readonly fresh: BlockContent;
    };

/** What blocks are held against: what can be quoted now, and how numbers are found in sentences. */
export class Standing {
  private readonly finder: NumberFinder;
  private readonly numbers: ReadonlyMap<string, LiveNumber>;

  /** @param waiting true while results are on their way: what is not there is then not gone */
  constructor(
    private readonly source: Source,
    private readonly waiting: boolean,
  ) {
    this.finder = new NumberFinder(namesIn(source.study));
    this.numbers = new Map(liveNumbers(source).map((one) => [one.key, one]));
  }

  of({ what }: Block): BlockStand {
    switch (what.kind) {
      case "heading":
        return { state: "current" };
      case "prose":
        return this.ofProse(what);
      case "paragraph":
        return this.ofParagraph(what);
      case "table":
        return this.ofTable(what);
      case "figure":
        return this.ofFigure(what);
    }
  }

  /** The block as it would be composed anew: a person's words are gone. Null: there is nothing to compose. */
  anew(what: BlockOf<"paragraph">): BlockContent | null {
    const now = composedSentences(what.of, this.source);
    return now && { ...what, own: null, shown: now as BlockOf<"paragraph">["shown"] };
  }

  /** A composed paragraph as prose that a person can write in. */
  prose(what: BlockOf<"paragraph">): Prose {
    return what.own ?? this.finder.prose((what.shown ?? []) as Words[]);
  }

  private absent(): BlockStand {
    return this.waiting ? { state: "waiting" } : { state: "gone" };
  }

  private ofTable(what: BlockOf<"table">): BlockStand {
    const now = TABLES[what.of.kind].print(what.of, what.options, this.source);
    if (!now) return this.absent();
    const kept = keptCells(now);
    const changes = tableChanges(what.shown, kept as PrintTable);
    return changes.length === 0 ? { state: "current" } : { state: "changed", changes, wording: [], fresh: { ...what, shown: kept } };
  }

  private ofFigure(what: BlockOf<"figure">): BlockStand {
    const now = FIGURES[what.of.kind].draw(what.of, this.source);
    if (!now) return this.absent();
    const shown = keptFigure(now);
    const changes = figureChanges(what.shown, shown);
    return changes.length === 0 ? { state: "current" } : { state: "changed", changes, wording: [], fresh: { ...what, shown } };
  }

  private ofProse(what: BlockOf<"prose">): BlockStand {
    const changes: BlockChange[] = [];
    let gone = false;
    const text = what.text.map((paragraph) =>
      paragraph.map((piece): ProsePiece => {
        if (typeof piece === "string" || piece.as !== "number") return piece;
        gone ||= !this.numbers.has(piece.of);
        return this.followed(piece, changes);
      }),
    );
    if (changes.length > 0) return { state: "changed", changes, wording: [], fresh: { ...what, text } };
    return gone ? this.absent() : { state: "current" };
  }

  private ofParagraph(what: BlockOf<"paragraph">): BlockStand {
    const now = composedSentences(what.of, this.source);
    if (!now) return this.absent();
    const shown = (what.shown ?? []) as Words[];
    const same = JSON.stringify(shown) === JSON.stringify(now);
    const fresh = now as BlockOf<"paragraph">["shown"];
    if (what.own === null)
      return same ? { state: "current" } : { state: "changed", changes: sentenceChanges(shown, now, this.finder), wording: [], fresh: { ...what, shown: fresh } }; // prettier-ignore
    const { places, wording } = aligned(shown, now, this.finder);
    const numbers = this.finder.numbers(now);
    const changes: BlockChange[] = [];
    const own = what.own.map((paragraph) =>
      paragraph.map((piece, k): ProsePiece => {
        if (typeof piece === "string" || piece.as !== "number") return piece;
        // one that was put in by its name is none of the sentences'
        if (!/^\d+$/.test(piece.of)) return this.followed(piece, changes);
        const place = places.get(Number(piece.of));
        // a number of a sentence that is no longer said becomes letters: what is said of the wording tells of it
        if (place === undefined) return plain(piece.shown as Words);
        const to = numbers[place]!;
        if (to !== plain(piece.shown as Words)) changes.push({ where: around(paragraph, k), from: plain(piece.shown as Words), to });
        return { ...piece, of: String(place), shown: to };
      }),
    );
    return same && changes.length === 0
      ? { state: "current" }
      : { state: "changed", changes, wording, fresh: { ...what, own, shown: fresh } };
  }

  /** A number that is known by its name, as it stands now; one that is gone keeps what it said. */
  private followed(piece: LivePiece, changes: BlockChange[]): LivePiece {
    const now = this.numbers.get(piece.of);
    if (!now || plain(now.words) === plain(piece.shown as Words)) return piece;
    changes.push({ where: now.name, from: plain(piece.shown as Words), to: plain(now.words) });
    return { ...piece, shown: now.words as LivePiece["shown"] };
  }
}

type LivePiece = Extract<ProsePiece, { as: "number" }>;

/** Which number of the new sentences each of the old is, where its sentence is still said; and sentences that are said otherwise. */
function aligned(was: readonly Words[], now: readonly Words[], finder: NumberFinder) {
  const starts = (all: readonly Words[]) => {
    let at = 0;
    return all.map((sentence) => {
      const count = finder.numbers([sentence]).length;
      const one = { sentence, skeleton: finder.skeleton(sentence), at, count };
      at += count;
      return one;
    });
  };
  const [before, after] = [starts(was), starts(now)];
  const taken = new Set<number>();
  const places = new Map<number, number>();
  const wording: { was: string; is: string }[] = [];
  const take = (one: (typeof before)[number], k: number) => {
    taken.add(k);
    for (let i = 0; i < one.count; i++) places.set(one.at + i, after[k]!.at + i);
  };
  const lost = before.filter((one) => {
    const k = after.findIndex((other, i) => !taken.has(i) && other.skeleton === one.skeleton);
    if (k >= 0) take(one, k);
    return k < 0;
  });
  // one that says the same in other words ("larger", now "smaller") keeps its numbers
  for (const one of lost) {
    const k = after.findIndex((other, i) => !taken.has(i) && other.count === one.count && alike(other.skeleton, one.skeleton));
    if (k >= 0) take(one, k);
    wording.push({ was: plain(one.sentence), is: k < 0 ? "" : plain(after[k]!.sentence) });
  }
  after.forEach((one, k) => taken.has(k) || wording.push({ was: "", is: plain(one.sentence) }));
  return { places, wording };
}

/** More than half of the words of the longer one stand in the other. */
function alike(a: string, b: string): boolean {
  const [first, second] = [a.split(/\s+/), b.split(/\s+/)].sort((x, y) => y.length - x.length) as [string[], string[]];
  const there = new Set(second);
  return first.filter((word) => there.has(word)).length > first.length / 2;
}

function sentenceChanges(was: readonly Words[], now: readonly Words[], finder: NumberFinder): BlockChange[] {
  const changes: BlockChange[] = [];
  for (let k = 0; k < Math.max(was.length, now.length); k++) {
    const [from, to] = [was[k], now[k]];
    if (from === undefined || to === undefined || finder.skeleton(from) !== finder.skeleton(to)) {
      const [before, after] = [plain(from ?? ""), plain(to ?? "")];
      if (before !== after) changes.push({ where: "", from: before, to: after });
      continue;
    }
    const [old, fresh] = [finder.numbers([from]), finder.numbers([to])];
    const words = plain(to).split(" ").slice(0, 4).join(" ");
    old.forEach((number, i) => number !== fresh[i] && changes.push({ where: `${words} …`, from: number, to: fresh[i]! }));
  }
  return changes.length > 0 ? changes : [{ where: "looks", from: "", to: "" }];
}

/** What cells say otherwise; rows and columns are known by what heads them. */
function tableChanges(was: PrintedCells | null, now: PrintTable): BlockChange[] {
  if (was === null) return [{ where: "the whole table", from: "", to: "" }];
  if (JSON.stringify(was) === JSON.stringify(now)) return [];
  const rowsOf = (table: PrintTable) =>
    table.sections.flatMap(({ heading, rows }, s) => {
      // a row of the same name stands in each section: the beginning of its heading says which
      const [section] = plain(heading).split(". ");
      const under = table.sections.length > 1 && section !== "" ? `${section!}: ` : "";
      return rows.map((row) => ({ key: `${s} ${plain(row[0] ?? "")}`, name: `${under}${plain(row[0] ?? "")}`, row }));
    });
  const heads = (table: PrintTable) => table.head.map(plain);
  const before = new Map(rowsOf(was as PrintTable).map((one) => [one.key, one]));
  const after = rowsOf(now);
  const [oldHeads, newHeads] = [heads(was as PrintTable), heads(now)];
  const changes: BlockChange[] = [];
  if (oldHeads.join("\t") === newHeads.join("\t"))
    for (const { key, name, row } of after) {
      const old = before.get(key);
      if (!old) changes.push({ where: name, from: "", to: "a row of its own" });
      else row.forEach((cell, i) => plain(cell) !== plain(old.row[i] ?? "") && changes.push({ where: `${name}, ${newHeads[i]!}`, from: plain(old.row[i] ?? ""), to: plain(cell) })); // prettier-ignore
    }
  else changes.push({ where: "its columns", from: oldHeads.slice(1).join(", "), to: newHeads.slice(1).join(", ") });
  const there = new Set(after.map(({ key }) => key));
  for (const [key, { name }] of before) if (!there.has(key)) changes.push({ where: name, from: "a row", to: "" });
  for (const [where, from, to] of [
    ["title", was.title, now.title],
    ["note", was.note, now.note],
  ] as const)
    // prettier-ignore
    if (plain(from as Words) !== plain(to)) changes.push({ where, from: plain(from as Words), to: plain(to) });
  was.sections.forEach(({ heading }, k) => {
    const to = now.sections[k]?.heading;
    if (to !== undefined && plain(heading as Words) !== plain(to))
      changes.push({ where: "heading", from: plain(heading as Words), to: plain(to) });
  });
  return changes.length > 0 ? changes : [{ where: "looks", from: "", to: "" }];
}

function figureChanges(was: PrintedFigure | null, now: PrintedFigure): BlockChange[] {
  if (was === null) return [{ where: "the whole figure", from: "", to: "" }];
  if (JSON.stringify(was) === JSON.stringify(now)) return [];
  const changes = now.marks.flatMap((mark, k) => (mark === was.marks[k] ? [] : [{ where: "", from: was.marks[k] ?? "", to: mark }]));
  return changes.length > 0 ? changes : [{ where: "title or note", from: plain(was.title as Words), to: plain(now.title as Words) }];
}

/** The words before a number. */
function around(paragraph: readonly ProsePiece[], k: number): string {
  const before = paragraph.slice(0, k).map((piece) => (typeof piece === "string" ? piece : "text" in piece ? piece.text : "")).join(""); // prettier-ignore
  return `… ${before.trim().split(/\s+/).slice(-4).join(" ")}`;
}
