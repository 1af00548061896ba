import { Ladder } from "@/study/model/ladder";
import { Study } from "@/study/model/study";
import { filterChoices, filterOf, filterValue, namesByUse, termChoices, termOf } from "./choices";
import { filterWords } from "@/study/report/sample-words";
import { numericChoices } from "@/features/study/name-choices";
import { addTerm } from "./ladder-edits";

const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [
    { name: "age", label: "Age in years" },
    { name: "q1", label: "I like it", kind: "item" },
    { name: "who", kind: "code" },
    { name: "format", label: "Format", kind: "category", levels: [{ value: "online", label: "On line" }, { value: "room" }] },
  ],
  scales: [{ id: "liking", name: "Liking", items: [{ variable: "q1" }] }],
});
const ladder = Ladder.parse({
  id: "l",
  name: "L",
  outcome: "liking",
  steps: [{ id: "step_1", terms: [{ components: ["age"] }] }, { id: "step_2" }],
});

test("numbers are offered: scales first, no codes and no categories, an item with its wording", () => {
  expect(numericChoices(study).map((c) => [c.group, c.label])).toEqual([
    ["Scales", "Liking"],
    ["Numbers", "Age in years"],
    ["Items", "q1 I like it"],
  ]);
});

test("terms offered are not in the ladder, not the outcome; products are of variables in it, squares among them", () => {
  const offered = termChoices(study, addTerm(ladder, 1, ["q1"])).map((c) => termOf(c.value).join("*"));
  expect(offered).toEqual(["age*q1", "age*age", "q1*q1", "format"]);
  expect(termChoices(study, ladder).map((c) => c.label)).toEqual(["Age in years squared", "q1 I like it", "Format"]);
  const withCategory = termChoices(study, addTerm(ladder, 1, ["format"])).map((c) => termOf(c.value).join("*"));
  expect(withCategory).toEqual(["age*format", "age*age", "q1"]); // a category has no square
});

test("a filter goes through its choice's value and reads in the sentence", () => {
  const filter = { variable: "format", equals: ["online"] };
  expect(filterOf(filterValue(filter))).toEqual({ filter, respondents: null });
  expect(filterOf(filterValue(filter, "adults"))).toEqual({ filter: null, respondents: "adults" });
  expect(filterOf(filterValue(null))).toEqual({ filter: null, respondents: null });
  expect(filterChoices(study).map((c) => c.label)).toEqual(["all respondents", "Format: On line", "Format: room"]);
  const everywhere = { id: "out", name: "Out", reason: "", everywhere: true, conditions: [{ kind: "not-rows" as const, rows: [1] }] };
  expect(filterWords({ ...study, filters: [everywhere] }, null)).toBe("all respondents in the study");
  expect([filterWords(study, null), filterWords(study, filter)]).toEqual(["all respondents", "respondents with Format online"]);
});

test("what most ladders stand on is offered first; what the ladder has, and its outcome, is not", () => {
  const other = Ladder.parse({ id: "m", name: "M", outcome: "q1", steps: [{ id: "s", terms: [{ components: ["format"] }] }] });
  const own = { ...study, ladders: [ladder, other] };
  expect(namesByUse(own, ladder).map((c) => [c.value, c.uses])).toEqual([
    ["format", 1],
    ["q1", 1],
  ]);
  const fresh = Ladder.parse({ id: "n", name: "N", steps: [{ id: "s" }] });
  expect(namesByUse({ ...own, ladders: [ladder, other, fresh] }, fresh).map((c) => c.value)).toEqual(["liking", "age", "format", "q1"]);
});
