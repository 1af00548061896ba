import { Groups } from "../model/groups";
import { Look } from "../model/look";
import { soundnessFaults } from "../model/soundness";
import { Study } from "../model/study";
import { askedKind } from "./kinds";
import { asked, touchedBy, usedBy } from "./standing";

/** What stands on what, of the kinds that ask a step or look before it. */
const FILE = ["a", "b", "y", "site", "spare", "q1", "q2"];
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: FILE.map((name) => ({ name, kind: name === "site" ? "category" : "number" })),
  filters: [{ id: "grown", name: "Grown", conditions: [{ kind: "between", variable: "a", low: 1, high: null }] }],
  scales: [{ id: "calm", name: "Calm", items: [{ variable: "q1" }, { variable: "q2" }] }],
  ladders: [{ id: "l", name: "L", outcome: "y", steps: [{ id: "s", terms: [{ components: ["a"] }, { components: ["calm"] }] }] }],
  groups: [{ id: "g", ladder: "l", variable: "site" }],
  looks: [
    {
      id: "before",
      name: "Before",
      variables: ["calm", "b"],
      respondents: "grown",
      controls: ["a"],
      scatters: [{ id: "sc", x: "b", y: "spare" }],
    },
  ],
});
const group = study.groups[0]!;
const look = study.looks[0]!;
const spec = (name: string, of: unknown) => JSON.stringify(asked(name, of, study, FILE).spec);

test("a comparison of groups needs its ladder's columns and that of the groups, and nothing else", () => {
  expect(asked("groups", group, study, FILE).columns.toSorted()).toEqual(["a", "q1", "q2", "site", "y"]);
});

test("how slopes are told changes no job; levels, steps and shuffles do, shuffles no replicate and no headline", () => {
  const other = (own: object) => Groups.parse({ ...group, ...own });
  expect(spec("groups", other({ metric: "own" }))).toBe(spec("groups", group));
  for (const own of [{ leftOut: ["x"] }, { step: 1 }, { shuffles: 1000 }, { together: [["x", "z"]] }])
    expect(spec("groups", other(own))).not.toBe(spec("groups", group));
  const kind = askedKind("groups");
  const drawn = asked("groups", other({ shuffles: 5000 }), study, FILE).spec;
  const bare = asked("groups", group, study, FILE).spec;
  expect(kind.replicated!(drawn)).toEqual(kind.replicated!(bare));
  expect(kind.headlineSpec!(drawn)).toEqual(kind.headlineSpec!(bare));
});

test("replicates of what is asked are the ladder's: none by normal theory", () => {
  const by = (intervals: object) => askedKind("groups").replicating!(asked("groups", group, Study.parse({ ...study, ladders: [{ ...study.ladders[0]!, intervals, seed: 9 }] }), FILE).spec); // prettier-ignore
  expect(by({ by: "normal" })).toBeNull();
  expect(by({ by: "bca", replicates: 2000 })).toMatchObject({ by: "bca", replicates: 2000, seed: 9, compared: null });
});

test("shuffles of ranges add up, in whatever order they come", () => {
  const piece = (beyond: number) => [{ column: "a", first: 0, second: 1, difference: 0.2, beyond }];
  const { joined } = askedKind("groups");
  expect(joined!([piece(3), piece(0), piece(5)])).toEqual(piece(8));
  expect(joined!([piece(5), piece(3), piece(0)])).toEqual(piece(8));
});

test("a look's numbers depend on who and what, not on how they are told", () => {
  const other = (own: object) => Look.parse({ ...look, ...own });
  for (const own of [{ name: "After" }, { told: "exact" }, { below: "x" }, { above: { by: "partial" } }]) expect(spec("first-look", other(own))).toBe(spec("first-look", look)); // prettier-ignore
  for (const own of [{ cases: "complete" }, { correlation: "spearman" }, { controls: [] }, { by: "site" }, { diagonal: "omega" }]) expect(spec("first-look", other(own))).not.toBe(spec("first-look", look)); // prettier-ignore
  expect(asked("first-look", look, study, FILE).columns.toSorted()).toEqual(["a", "b", "q1", "q2", "spare"]);
});

test("what is named is used: a variable, a scale, a filter, the ladder; and a change of it touches the numbers", () => {
  const names = (ref: { kind: string; id: string }) => usedBy(study, ref).map(({ kind, id }) => `${kind} ${id}`);
  expect(names({ kind: "name", id: "site" })).toEqual(["groups g"]);
  expect(names({ kind: "ladder", id: "l" })).toEqual(["groups g"]);
  expect(names({ kind: "name", id: "spare" })).toEqual(["first-look before"]);
  expect(names({ kind: "filter", id: "grown" })).toEqual(["first-look before"]);
  const touched = (subject: string, id: string) => touchedBy(study, [{ subject, id, from: null, to: null } as Parameters<typeof touchedBy>[1][number]]).map(({ kind, id: own }) => `${kind} ${own}`); // prettier-ignore
  expect(touched("scale", "calm")).toEqual(expect.arrayContaining(["groups g", "first-look before", "ladder l"]));
  expect(touched("filter", "grown")).toEqual(["first-look before"]);
  expect(touched("variable", "site")).toEqual(["groups g"]);
});

test.each([
  ["a comparison of a ladder that has gone", { groups: [{ ...group, ladder: "gone" }] }],
  ["… by a variable that has gone", { groups: [{ ...group, variable: "gone" }] }],
  ["… by a scale, which makes no groups", { groups: [{ ...group, variable: "calm" }] }],
  ["a look at what is not there", { looks: [{ ...look, variables: ["gone"] }] }],
  ["a look among respondents of no filter", { looks: [{ ...look, respondents: "gone" }] }],
  ["a scatter of what is not there", { looks: [{ ...look, scatters: [{ ...look.scatters[0]!, x: "gone" }] }] }],
])("%s makes a study unsound, and where is said", (_, own) => {
  const broken = { ...study, ...own };
  expect(soundnessFaults(broken).map(({ path }) => path[0])).toEqual([Object.keys(own)[0]]);
  expect(() => Study.parse(broken)).toThrow();
});

test.each([
  ["a level twice", { ...group, leftOut: ["x"], together: [["x", "z"]] }, Groups],
  ["a group of one level", { ...group, together: [["x"]] }, Groups],
  ["too few shuffles", { ...group, shuffles: 10 }, Groups],
  ["a variable twice", { ...look, variables: ["a", "a"] }, Look],
  ["edges that fall", { ...look, scatters: [{ ...look.scatters[0]!, panels: [{ variable: "a", edges: [3, 2] }] }] }, Look],
  ["five scatters", { ...look, scatters: Array.from({ length: 5 }, (__, i) => ({ ...look.scatters[0]!, id: `s${i}` })) }, Look],
])("%s is no object of a study", (_, own, schema) => expect(schema.safeParse(own).success).toBe(false));
