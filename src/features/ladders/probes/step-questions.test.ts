import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { Ladder } from "@/study/model/ladder";
import { Search } from "@/study/model/search";
import { Study } from "@/study/model/study";
import { sourceOf } from "@/study/test-support/columns";
import { stepQuestions } from "./step-questions";

test("a study with more variables than a search takes is asked of like any other: the search begins with as many as it takes", () => {
  const spare = Array.from({ length: 1200 }, (_, i) => `v${i}`);
  const study = Study.parse({
    format: "beta-step-study",
    version: 1,
    name: "wide",
    codebook: ["y", "x", ...spare].map((name) => ({ name, kind: "number" })),
  });
  const ladder = Ladder.parse({ id: "l", name: "L", outcome: "y", steps: [{ id: "one", terms: [{ components: ["x"] }] }] });
  const cells = (f: (i: number) => number) => Array.from({ length: 30 }, (_, i) => String(f(i)));
  const result = analyseLadder(study, ladder, sourceOf({ y: cells((i) => (i * i) % 7), x: cells((i) => i) }));
  if (result.status !== "fitted") throw new Error("not fitted");
  const asked = stepQuestions(study, ladder, 0, result.fit, (name) => name).find(({ edit }) => edit.subject === "search");
  expect(Search.parse(asked!.edit.to).candidates).toEqual(spare.slice(0, 500));
});
