import fc from "fast-check";
import { Block, type Prose, type ProsePiece } from "@/study/model/block";
import type { PrintedWords } from "@/study/model/printed";
import { applyEdits } from "@/study/model/edit";
import { Study } from "@/study/model/study";
import { begun, filled, offers } from "@/study/report/document/begin";
import { numbering } from "@/study/report/document/manuscript";
import type { Source } from "@/study/report/document/source";
import { wholeSource } from "@/study/test-support/whole-study";
import { addBlock, changeBlock, isQuote, keepBegun, moveBlock } from "./block-edits";
import { blockNames, placeOf } from "./block-names";
import { editorDocument, Plain, writtenProse } from "./prose-doc";

/** Words with a look. */
const statement: PrintedWords = [{ text: "F", as: "italic" }, "(1, 2) = 3"];
const letters = fc.string({ minLength: 1, maxLength: 12 });
const piece: fc.Arbitrary<ProsePiece> = fc.oneof(
  letters,
  fc.record({ text: letters, as: fc.constantFrom("italic" as const, "superscript" as const) }),
  fc.record({ as: fc.constant("number" as const), of: letters, shown: fc.oneof(letters, fc.constant(statement)) as fc.Arbitrary<PrintedWords> }), // prettier-ignore
  fc.record({ as: fc.constant("reference" as const), to: letters }),
);
/** Plain letters that stand together are one piece, and a text has a paragraph at least. */
const whole = (prose: Prose): Prose =>
  (prose.length === 0 ? [[]] : prose).map((paragraph) =>
    paragraph.reduce<ProsePiece[]>((all, one) => {
      const last = all.at(-1);
      if (typeof last === "string" && typeof one === "string") return [...all.slice(0, -1), last + one];
      return [...all, one];
    }, []),
  );

test("what goes into the editor comes out of it: letters, looks, numbers with what they are bound to, references", () => {
  fc.assert(
    fc.property(fc.array(fc.array(piece, { maxLength: 6 }), { maxLength: 4 }), (prose) => {
      expect(writtenProse(editorDocument(prose, () => "Table 1"))).toEqual(whole(prose));
    }),
  );
});

const reference = () => "Table 1";
const lettersOf = (prose: Prose) => new Plain(prose, reference).letters;
const boundOf = (prose: Prose) => prose.flat().filter((one) => typeof one !== "string" && !("text" in one));
const texts = fc.array(fc.array(piece, { maxLength: 6 }), { maxLength: 4 }).map(whole);
const typed = fc.string({ maxLength: 8, unit: fc.constantFrom("a", "1", " ", "\n", "😀", "😁") });

test("prose that is rewritten as plain letters reads as those letters; written into at one place, it keeps every number that place is not within", () => {
  fc.assert(
    fc.property(texts, typed, fc.nat(), fc.nat({ max: 5 }), (prose, written, at, gone) => {
      const before = lettersOf(prose);
      const from = at % (before.length + 1);
      const after = before.slice(0, from) + written + before.slice(from + gone);
      const now = new Plain(prose, reference).changedTo(after);
      expect(lettersOf(now)).toBe(after);
      // what is left of the numbers is a part of them in their order, and all of them where none was written into
      let next = 0;
      for (const one of boundOf(now)) {
        next = boundOf(prose).indexOf(one, next) + 1;
        expect(next).toBeGreaterThan(0);
      }
      const ends = new Plain(prose, reference);
      if (gone === 0 && ends.place(from) !== ends.place(from + 1)) expect(boundOf(now)).toEqual(boundOf(prose));
    }),
  );
});

test("looks stay around what is written; a number that is written into is letters from then on", () => {
  const prose: Prose = [["Up to ", { as: "number", of: "k", shown: "12" }, " of ", { text: "N", as: "italic" }], ["End."]];
  const plain = new Plain(prose, reference);
  expect(plain.letters).toBe("Up to 12 of N\nEnd.");
  expect(plain.changedTo("Up to 112 of N\nEnd.")).toEqual([["Up to 1", prose[0]![1], " of ", prose[0]![3]], ["End."]]);
  expect(plain.changedTo("Up to 132 of N\nEnd.")).toEqual([["Up to 132 of ", prose[0]![3]], ["End."]]);
  expect(plain.changedTo("Up to 12 of NEnd.")).toEqual([["Up to ", prose[0]![1], " of ", prose[0]![3], "End."]]);
  // the places of: before the text, before and after the number, the end of the first and the beginning of the second paragraph, the end
  expect([0, 6, 8, 13, 14, 18].map((offset) => plain.place(offset))).toEqual([1, 7, 8, 13, 15, 19]);
});

const heading = (id: string) => Block.parse({ id, what: { kind: "heading", level: 3, text: id } });
const base = Study.parse({ format: "beta-step-study", version: 1, name: "S", blocks: ["a", "b", "c", "d"].map(heading) });
const order = (study: Study) => study.blocks.map(({ id }) => id).join("");

test("a block that is moved stands where it was put, all others in their order, and taking it back puts it back", () => {
  for (let from = 0; from < 4; from++)
    for (let to = 0; to < 4; to++) {
      const edits = moveBlock(base.blocks, from, to);
      if (from === to) {
        expect(edits).toEqual([]);
        continue;
      }
      const { study } = applyEdits(base, edits);
      const others = [..."abcd"].filter((_, i) => i !== from);
      expect(order(study)).toBe([...others.slice(0, to), "abcd"[from], ...others.slice(to)].join(""));
    }
  expect(moveBlock(base.blocks, 0, 4)).toEqual([]);
  expect(moveBlock(base.blocks, 7, 1)).toEqual([]);
});

test("a new block gets an id of its own at its place; what was quoted before the text was composed stands at its end", () => {
  const { id, edit } = addBlock(base.blocks, 1, heading("a").what, "");
  expect(id).toBe("h_a");
  expect(order(applyEdits(base, [edit]).study)).toBe("ah_abcd");
  expect(order(applyEdits(base, [changeBlock(heading("b"), { kind: "heading", level: 2, text: "B" })]).study)).toBe("abcd");
  const quotes = [heading("quoted"), heading("quoted_2")];
  const quoted = Study.parse({ ...base, blocks: quotes });
  expect(quoted.blocks.every(isQuote)).toBe(true);
  expect(order(applyEdits(quoted, keepBegun(base.blocks, quotes)).study)).toBe("abcdquotedquoted_2");
});

describe("what the blocks of a whole text are called", () => {
  let source: Source;
  let blocks: Block[];
  beforeAll(async () => {
    source = await wholeSource();
    const further = offers(source).filter(({ what }) => what.kind === "table" && ["steps", "descriptives"].includes(what.of.kind));
    blocks = begun(source);
    for (const { what } of further) blocks.push(Block.parse({ id: `further_${blocks.length}`, what: filled(what, source) }));
    for (const h of source.study.hypotheses) blocks.push(Block.parse({ id: `alone_${h.id}`, what: filled(Block.parse({ id: "x", what: { kind: "paragraph", of: { kind: "hypothesis", ids: [h.id] } } }).what, source) })); // prettier-ignore
  });

  test("no two are called alike, so that each can be found by its name", () => {
    const numberOf = numbering(blocks);
    const several = [...blocks, ...["o1", "o2", "o3"].map((id) => Block.parse({ id, what: { kind: "prose", text: [[]] } }))];
    const names = [...blockNames(several, source.study, numberOf, source.title).values()];
    expect(names.slice(-3)).toEqual(["a text of your own", "a text of your own (2)", "a text of your own (3)"]);
    expect(names.filter((name) => name.includes("site"))).toEqual(["the paragraph on means by site (Outcome)", "the paragraph on groups of site (Outcome)"]); // prettier-ignore
    expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
    for (const name of names) expect(name).not.toMatch(/undefined|null| on $|\b[a-z]+_[a-z]+\b/);
  });

  test("each leads to where its numbers are worked out", () => {
    const places = new Map(blocks.map(({ id, what }) => [id, placeOf(what, source.study)]));
    const kinds = (place: string) => blocks.flatMap(({ id, what }) => (places.get(id) === place && "of" in what ? [what.of.kind] : []));
    expect(kinds("responses")).toEqual(["participants"]);
    expect(new Set(kinds("scales"))).toEqual(new Set(["measures", "structure", "loadings"]));
    expect(new Set(kinds("first-look"))).toEqual(new Set(["look", "descriptives"]));
    expect(new Set(kinds("theory"))).toEqual(new Set(["hypotheses", "theory"]));
    expect(kinds("theory?hypothesis=h2")).toEqual(["hypothesis"]);
    expect(new Set(kinds("ladders?ladder=k"))).toEqual(new Set(["ladder", "coefficients", "steps"]));
    for (const [kind, probe] of [["slopes", "p"], ["means", "mm"], ["groups", "g"], ["importance", "i"], ["search", "q"]]) expect(kinds(`ladders?ladder=l&probe=${probe}`)).toContain(kind); // prettier-ignore
    for (const { id, what } of blocks) expect([id, places.get(id) === null]).toEqual([id, !("of" in what)]);
  });
});
