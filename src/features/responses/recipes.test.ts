import { DerivedVariable } from "@/study/model/derived";
import { Study } from "@/study/model/study";
import { readLabels } from "./ManyEntries";
import { firstName, firstRecipe, freeName, kindOf, levelsOf, RECIPE_WORDS, type RecipeKind, reopened } from "./recipes/draft-recipe";

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
