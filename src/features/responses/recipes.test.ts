import { DerivedVariable } from "@/study/model/derived";
import { applyEdits } from "@/study/model/edit";
import { Study } from "@/study/model/study";
import { StudyColumns } from "@/study/prepare/study-columns";
import { sourceOf } from "@/study/test-support/columns";
import { readLabels } from "./ManyEntries";
import {
  firstName,
  firstRecipe,
  freeName,
  indicatorsOf,
  kindOf,
  levelsOf,
  RECIPE_WORDS,
  type RecipeKind,
  reopened,
} from "./recipes/draft-recipe";

const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "x",
  codebook: [
    { name: "age" },
    { name: "format", kind: "category", levels: [{ value: "o", label: "online" }, { value: "p" }] },
    { name: "born", kind: "date" },
    { name: "age_z", label: "Age in SDs" },
  ],
  derived: [{ name: "age_z", recipe: { kind: "z", from: "age" } }],
  scales: [{ id: "age_z_2", name: "S", items: [{ variable: "age" }] }],
});

test("law: a first recipe of every kind is one the study takes, under a name nothing has", () => {
  for (const kind of Object.keys(RECIPE_WORDS) as RecipeKind[]) {
    for (const from of ["age", "format", "born"]) {
      const name = firstName(kind, from, study);
      expect([...study.codebook.map((v) => v.name), ...study.scales.map((s) => s.id)]).not.toContain(name);
      expect(DerivedVariable.safeParse({ name, recipe: firstRecipe(kind, from, study, ["1.3.2024", "25.3.2024"]) }).error).toBeUndefined();
    }
  }
  expect(freeName("age z", study)).toBe("age_z_3"); // the variable and the scale have the first two
  expect(firstRecipe("years", "born", study, ["25.3.2024"])).toMatchObject({ order: "day-month-year" });
});

test("a recipe tells the kind and the levels of what it makes", () => {
  const lookup = firstRecipe("lookup", "format", study);
  expect([kindOf(lookup), levelsOf(lookup)]).toEqual(["category", ["online", "p"]]);
  const numbers = {
    ...lookup,
    table: [
      { values: ["o"], to: "1" },
      { values: ["p"], to: "0" },
    ],
  } as typeof lookup;
  expect(kindOf(numbers)).toBe("number");
  expect(kindOf({ ...numbers, otherwise: { kind: "keep" } } as typeof lookup)).toBe("category"); // what is kept may be words
  const ranges = firstRecipe("ranges", "age", study);
  expect([kindOf(ranges), levelsOf(ranges)]).toEqual(["category", ["low", "high"]]);
  expect(reopened(study.derived[0]!, study)).toEqual({
    opened: "age_z",
    name: "age_z",
    label: "Age in SDs",
    recipe: { kind: "z", from: "age" },
  });
});

test("indicators for every level: each level is 1 in one of them, and together they account for everybody", () => {
  const { study: made } = applyEdits(study, indicatorsOf("format", study));
  const names = ["format_online", "format_p"];
  expect(made.derived.slice(1).map((d) => d.name)).toEqual(names);
  const columns = new StudyColumns(made, sourceOf({ format: ["o", "p", "", "o"], age: ["1", "2", "3", "4"] }));
  expect(names.map((name) => [...columns.variable(name).values])).toEqual([
    [1, 0, 0, 1],
    [0, 1, 0, 0],
  ]);
  expect(names.map((name) => [...columns.variable(name).missing])).toEqual([
    [0, 0, 1, 0],
    [0, 0, 1, 0],
  ]);
  expect(indicatorsOf("age", study)).toEqual([]);
});

test.each<[string, { value: string; label: string }[] | null]>([
  [
    "1 = never; 2=very, very often",
    [
      { value: "1", label: "never" },
      { value: "2", label: "very, very often" },
    ],
  ],
  ["−1 = no; ", [{ value: "-1", label: "no" }]],
  ["", []],
  ["1 never", null],
  ["= x", null],
])("value labels %p", (text, labels) => expect(readLabels(text)).toEqual(labels));
