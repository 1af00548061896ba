import { columnOf } from "../test-support/columns";
import { readCategories } from "./category-column";

const read = (cells: string[], levels: string[] = [], missing: string[] = []) => {
  const {
    levels: names,
    codes,
    missing: gone,
  } = readCategories(columnOf("g", cells), {
    missing,
    levels: levels.map((value) => ({ value, label: "" })),
  });
  return { names, cells: Array.from(codes, (code, i) => (gone[i] ? null : names[code])) };
};

test("levels stand in codebook order; empty cells and missing codes are no level", () => {
  const found = read(["day", "", "free", "day", "-9", "season"], ["season", "day", "free"], ["-9"]);
  expect(found).toEqual({ names: ["season", "day", "free"], cells: ["day", null, "free", "day", null, "season"] });
});

test("a declared level that nobody has keeps its place; an answer nobody declared comes after them", () => {
  expect(read(["b", "x", "b"], ["a", "b"])).toEqual({ names: ["a", "b", "x"], cells: ["b", "x", "b"] });
});

test("without declared levels: numbers ascending, then words as they come", () => {
  expect(read(["2", "no", "10", "-9", "1"], [], ["-9"]).names).toEqual(["1", "2", "10", "no"]);
});

test("a level or missing code written as another form of the same number is the same", () => {
  expect(read(["1", "2", "99"], ["1.0", "2"], ["99.0"])).toEqual({ names: ["1.0", "2"], cells: ["1.0", "2", null] });
});
