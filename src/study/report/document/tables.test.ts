import { BlockContent, type BlockOf, FIGURE_KINDS, PARAGRAPH_KINDS, TABLE_KINDS, type TableOptions } from "../../model/block";
import { wholeSource } from "../../test-support/whole-study";
import { plain, type Words } from "../words";
import { begun, filled, notInText, offers, together } from "./begin";
import { Standing } from "./block-stand";
import { FIGURES } from "./figures";
import { liveNumbers } from "./live-numbers";
import { manuscriptOf, numbering } from "./manuscript";
import type { Source } from "./source";
import { movingOptions, TABLES } from "./tables";

let source: Source;
let tables: BlockOf<"table">[];
beforeAll(async () => {
  source = await wholeSource();
  tables = [...offers(source).map(({ what }) => what), together(["l", "k"])].filter((what) => what.kind === "table");
});
const printed = (what: BlockOf<"table">, options: Partial<TableOptions>) => TABLES[what.of.kind].print(what.of, { ...what.options, ...options }, source); // prettier-ignore
/** Every other word that an option can be. */
const VALUES: { readonly [K in keyof TableOptions]: readonly TableOptions[K][] } = {
  metric: ["beta", "b", "both"],
  spread: ["se", "interval", "both", "neither"],
  tests: ["p", "stars", "both", "neither"],
  without: [[], ["s1"]],
  step: [null, 1, 2],
  form: ["below", "beside"],
  decimals: [2, 3, 4],
  order: ["as it stands", "by size", "by name"],
};
const OPTIONS = Object.keys(VALUES) as (keyof TableOptions)[];
const name = ({ of }: BlockOf<"table">) => `${of.kind} ${of.ids.join(" ")}`;

test("a part of every kind is offered for a study that holds all of them", () => {
  const kinds = (part: string) => new Set(offers(source).flatMap(({ what }) => (what.kind === part && "of" in what ? [what.of.kind] : [])));
  expect(kinds("table")).toEqual(new Set(TABLE_KINDS));
  expect(kinds("figure")).toEqual(new Set(FIGURE_KINDS));
  expect(kinds("paragraph")).toEqual(new Set(PARAGRAPH_KINDS));
});

test("law: an option that is offered moves what is printed, and one that is not offered moves nothing", () => {
  const still: string[] = [];
  for (const what of tables) {
    const moving = new Set(movingOptions(what, source));
    for (const option of OPTIONS) {
      const prints = new Set(VALUES[option].map((value) => JSON.stringify(printed(what, { [option]: value }))));
      if (prints.size > 1 !== moving.has(option)) still.push(`${name(what)}: ${option} prints in ${prints.size} ways`);
    }
  }
  expect(still).toEqual([]);
});

test("law: whatever the options, rows are as wide as the head, headings over columns add up to it, and no cell shows that a number is not there by another word", () => {
  const faults: string[] = [];
  const look = (what: BlockOf<"table">, options: Partial<TableOptions>) => {
    const table = printed(what, options)!;
    const where = `${name(what)} ${JSON.stringify(options)}`;
    const wide = table.head.length;
    if (table.sections.some(({ rows }) => rows.some((row) => row.length !== wide))) faults.push(`${where}: a row of another width`);
    if (table.over && table.over.reduce((sum, one) => sum + one.columns, 0) !== wide)
      faults.push(`${where}: headings over ${wide} columns`);
    const words = [table.title, table.note, ...table.head, ...table.sections.flatMap(({ heading, rows }) => [heading, ...rows.flat()])];
    for (const cell of words.map(plain)) if (/NaN|undefined|null|Infinity|\[object/.test(cell)) faults.push(`${where}: ${cell}`);
    if (table.sections.flatMap(({ rows }) => rows).length === 0) faults.push(`${where}: no row`);
    if (!BlockContent.safeParse(filled({ ...what, options: { ...what.options, ...options } }, source)).success) faults.push(`${where}: cannot be kept`); // prettier-ignore
  };
  for (const what of tables) {
    look(what, {});
    for (const metric of VALUES.metric) for (const spread of VALUES.spread) for (const tests of VALUES.tests) look(what, { metric, spread, tests }); // prettier-ignore
    for (const option of ["without", "step", "form", "decimals", "order"] as const) for (const value of VALUES[option]) look(what, { [option]: value }); // prettier-ignore
  }
  expect(faults).toEqual([]);
});

describe("an order of rows", () => {
  const rows = (order: TableOptions["order"], kind = "descriptives") => {
    const what = tables.find((one) => one.of.kind === kind)!;
    return printed(what, { order })!.sections.map((section) => section.rows.map((row) => row.map(plain)));
  };
  test("by name is that of the alphabet, by size falls, and both hold the same rows", () => {
    const names = rows("by name").flat().map((row) => row[0]!); // prettier-ignore
    expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b)));
    const means = rows("by size").flat().map((row) => Number(row[2]!.replace("−", "-"))); // prettier-ignore
    expect(means).toEqual([...means].sort((a, b) => b - a));
    for (const kind of ["descriptives", "coefficients"])
      for (const order of ["by name", "by size"] as const)
        expect(rows(order, kind).map((section) => section.map((row) => row.join()).sort())).toEqual(
          rows("as it stands", kind).map((section) => section.map((row) => row.join()).sort()),
        );
  });
});

test("a step that is left out takes its rows along and no number of another with it", () => {
  const [what] = tables.filter((one) => one.of.kind === "coefficients" && one.of.ids.length === 1);
  const sections = (options: Partial<TableOptions>) => printed(what!, options)!.sections.map(({ heading, rows }) => [plain(heading), ...rows.map((row) => row.map(plain))]); // prettier-ignore
  const [first, ...others] = sections({});
  expect(first![0]).toContain("Background");
  expect(sections({ without: ["s1"] })).toEqual(others);
  expect(sections({ without: ["s1", "s3"] })).toEqual([others[0]]);
});

test("of several ladders one step of each is told, and the note says which: the last where nothing else is asked for or one does not have it", () => {
  const several = tables.find((one) => one.of.ids.length > 1)!;
  const told = (step: number | null) => {
    const { note, sections } = printed(several, { step })!;
    return { note: plain(note), rows: sections[0]!.rows.map((row) => plain(row[0]!)) };
  };
  expect(told(null).note).toMatch(/^The last step of each\. /);
  expect(told(null).rows).toEqual(["age", "site: North", "site: West", "x", "m", "x × m", "Calm"]);
  expect(told(3)).toEqual({ ...told(null) });
  expect(told(1).note).toMatch(/^Step 1 of Outcome; Step 1 of Drive\. /);
  expect(told(1).rows).toHaveLength(3);
});

test("every number of every paragraph and note prints; a figure's marks name what is drawn", () => {
  const blocks = begun(source);
  const said: Words[] = blocks.flatMap(({ what }) => (what.kind === "paragraph" ? ((what.shown ?? []) as Words[]) : what.kind === "figure" ? [what.shown!.title as Words, what.shown!.note as Words, ...what.shown!.marks] : [])); // prettier-ignore
  expect(said.length).toBeGreaterThan(60);
  for (const words of said.map(plain)) {
    expect(words).not.toMatch(/NaN|undefined|null|Infinity|\[object/);
    expect(words).not.toMatch(/ {2}|\.\.|\( | \)| ,/);
  }
  const marks = FIGURES.groups.draw({ kind: "groups", ids: ["g"] }, source)!.marks.join("\n");
  for (const site of ["East", "North", "West"]) expect(marks).toContain(site);
});

test("a text as it was begun stands as it is; where one ladder's numbers move, what tells of it is out of date and nothing else", async () => {
  const blocks = begun(source);
  const standing = new Standing(source, false);
  for (const block of blocks) expect([block.id, standing.of(block).state]).toEqual([block.id, "current"]);
  const study = { ...source.study, ladders: source.study.ladders.map((l) => (l.id === "k" ? { ...l, steps: l.steps.slice(0, 1) } : l)) };
  const now = new Standing(await wholeSource(study), false);
  const moved = blocks.filter((block) => now.of(block).state !== "current").map(({ what }) => ("of" in what ? `${what.kind} ${what.of.kind} ${what.of.ids.join()}` : what.kind)); // prettier-ignore
  expect(moved).toEqual(["paragraph ladder k", "table coefficients k"]);
});

test("law: no two parts that are offered are called alike, and neither are two numbers; each number is found by its key and prints", () => {
  const words = offers(source).map((one) => one.words);
  expect(words.filter((one, i) => words.indexOf(one) !== i)).toEqual([]);
  const numbers = liveNumbers(source);
  expect(numbers.length).toBeGreaterThan(150);
  for (const by of ["key", "name"] as const) {
    const all = numbers.map((one) => one[by]);
    expect(all.filter((one, i) => all.indexOf(one) !== i)).toEqual([]);
  }
  for (const one of numbers) expect([one.name, plain(one.words)]).toEqual([one.name, expect.not.stringMatching(/NaN|undefined|null|Infinity|^$/)]); // prettier-ignore
});

test("law: of all that is offered what stands in the text is not offered again, and what was taken out is", () => {
  const blocks = begun(source);
  expect(notInText(source, blocks).map((one) => one.words)).toEqual([]);
  for (const { what, id } of blocks) {
    if (!("of" in what) || what.of.ids.length === 0) continue;
    const without = blocks.filter((block) => !("of" in block.what && block.what.of.ids[0] === what.of.ids[0]));
    const again = notInText(source, without).map((one) => JSON.stringify("of" in one.what && [one.what.kind, one.what.of]));
    expect([id, again]).toEqual([id, expect.arrayContaining([JSON.stringify([what.kind, what.of])])]);
  }
});

test("a sentence leads to the table that tells of its ladder: its own, or else one that tells of several", () => {
  const blocks = begun(source);
  const leads = (all: typeof blocks) => manuscriptOf("M", all, source).blocks.flatMap((b) => (b.kind === "paragraph" && b.key === "paragraph_ladder_k" ? b.sentences.map(plain) : [])).at(-1); // prettier-ignore
  const own = numbering(blocks)("table_coefficients_k")!;
  expect(leads(blocks)).toBe(`${own.words} holds all coefficients with 95 % intervals.`);
  const several = blocks.flatMap((block) => {
    if (block.id === "table_coefficients_k") return [];
    return block.id === "table_coefficients_l" ? [{ ...block, what: filled(together(["l", "k"]), source)! }] : [block];
  });
  const both = numbering(several)("table_coefficients_l")!;
  expect(leads(several)).toBe(`${both.words} holds all coefficients with 95 % intervals.`);
  expect(leads(several.filter(({ id }) => id !== "table_coefficients_l"))).not.toContain("holds all coefficients");
});
