import { KEPT } from "@/study/kinds/kinds";
import { Study } from "@/study/model/study";
import { finderItems, PLACES } from "./finder-items";

const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "S",
  codebook: [
    { name: "q1", label: "I lose the thread when others listen" },
    ...Array.from({ length: 30 }, (_, i) => ({ name: `other_${i}`, label: "What else?" })),
  ],
  filters: [{ id: "f", name: "Grown up", reason: "adults were asked", conditions: [{ kind: "not-rows", rows: [1] }] }],
  scales: [{ id: "calm", name: "Calm", items: [{ variable: "q1" }] }],
  structures: [{ id: "s", name: "Behind it", items: ["q1", "other_1", "other_2"] }],
  ladders: ["first", "second"].map((id) => ({ id, name: `Ladder ${id}`, steps: [{ id: "s1", name: "Background" }] })),
  probes: [{ id: "p", ladder: "first", focal: "q1", moderators: [{ variable: "other_2" }] }],
  means: [{ id: "m", ladder: "first", variable: "q1" }],
  groups: [{ id: "g", ladder: "first", variable: "other_3" }],
  residuals: [{ id: "e", ladder: "first" }],
  importances: [{ id: "i", ladder: "first" }],
  searches: [{ id: "x", ladder: "first", candidates: ["other_4", "other_5"] }],
  shifts: [{ id: "h", ladder: "first", column: [{ variable: "other_4" }] }],
  added: [{ id: "k", ladder: "first" }],
  hypotheses: [{ id: "y", text: "Calm helps listening" }],
  blocks: [{ id: "t", what: { kind: "table", of: { kind: "coefficients", ids: ["first"] } } }],
  plans: [{ id: "d", at: "2026-03-12T09:00:00.000Z", rows: 0, sha256: "0".repeat(64), document: { codebook: [], scales: [], derived: [], filters: [], ladders: [], hypotheses: [], powers: [], theory: { id: "theory" } } }], // prettier-ignore
  powers: [{ id: "r", hypothesis: "y" }],
  looks: [{ id: "before", name: "Before it all", variables: ["q1"] }],
  comparisons: [{ id: "c", name: "Both", models: [{ name: "A", ladder: "first" }, { name: "B", ladder: "second" }] }], // prettier-ignore
});
const find = (typed: string) => finderItems(study, [{ key: "undo", name: "Take the last change back" }], typed);

test("everything that can be opened is found by its name, and leads there; a variable by its wording too", () => {
  const named = { "variable q1": "q1", "filter f": "grown", "scale calm": "calm", "structure s": "behind", "ladder second": "ladder second", "comparison c": "both", "probe p": "q1 by other_2", "means m": "means of q1", "groups g": "by other_3", "residuals e": "residuals of first", "importance i": "importance in first", "search x": "search among 2", "shift h": "change of other_4", "added k": "what each term adds", "hypothesis y": "calm helps", "power r": "respondents for", "plan d": "plan of 2026", "block t": "table of coefficients", "first-look before": "before it" }; // prettier-ignore
  for (const [key, typed] of Object.entries(named)) expect(find(typed).map((item) => item.key)).toContain(key);
  expect(Object.keys(named).map((key) => key.split(" ")[0])).toEqual(KEPT.filter((kind) => kind.opens).map((kind) => kind.kind));
  expect(find("LISTEN thread")).toMatchObject([{ key: "variable q1", at: "responses?variable=q1" }]);
  expect(find("second")).toMatchObject([{ at: "ladders?ladder=second" }]);
});

test("places and actions come first; of many alike the first are shown, and more letters find the others", () => {
  const all = find("");
  expect(all.slice(0, PLACES.length + 1).map((item) => item.group)).toEqual([...PLACES.map(() => "Places"), "Actions"]);
  expect(all.filter((item) => item.group === "Variables")).toHaveLength(8);
  expect(find("other_29").map((item) => item.name)).toEqual(["other_29"]);
  expect(find("nothing like it")).toEqual([]);
});
