import { randomStream } from "@/core/random/random-stream";
import { tableAsHtml } from "@/files/table-html";
import { searchCsv } from "@/files/search-csv";
import { stabilityCsv } from "@/files/stability-csv";
import { Search, SearchMethod } from "../model/search";
import { refusalWords } from "../report/refusals";
import { searchRows, searchTable, stabilityTable, whatStabilitySays, whatTheSearchSays } from "../report/ladder/search-words";
import { plain } from "../report/words";
import { cells, deskOf, ladderOf } from "../test-support/desk";
import { analyseLadder } from "./analyse-ladder";
import { analyseSearch, searchLadder } from "./analyse-search";
import { joinedStability } from "./joined-stability";
import { stabilityOf } from "./search-stability";

const N = 160;
const title = (name: string, level?: string | null) => (level == null ? `<${name}>` : `<${name}: ${level}>`);
const stream = randomStream(31);
const noise = (n: number) => Array.from({ length: n }, () => stream.normal());

/** Three that count, a category that counts, three that do not, and a control. */
function made(n = N) {
  const [c, x1, x2, x3, z1, z2, z3, e] = Array.from({ length: 8 }, () => noise(n)) as [number[], number[], number[], number[], number[], number[], number[], number[]]; // prettier-ignore
  const group = (i: number) => ["lab", "home", "yard"][i % 3]!;
  const y = (i: number) => c[i]! + 0.7 * x1[i]! - 0.6 * x2[i]! + 0.5 * x3[i]! + (group(i) === "home" ? 1 : 0) + e[i]!;
  return { y: cells(n, y), c: cells(n, (i) => c[i]!), x1: cells(n, (i) => x1[i]!), x2: cells(n, (i) => x2[i]!), x3: cells(n, (i) => x3[i]!), z1: cells(n, (i) => z1[i]!), z2: cells(n, (i) => z2[i]!), z3: cells(n, (i) => z3[i]!), group: cells(n, group) }; // prettier-ignore
}
const DATA = made();
const CANDIDATES = ["x1", "z1", "x2", "z2", "x3", "group", "z3"];
const asked = (own: object = {}) => Search.parse({ id: "q", ladder: "l", candidates: CANDIDATES, ...own });

function searched(own: object = {}, data: Record<string, string[]> = DATA, ladder = ladderOf(["c"], ["x1"])) {
  const desk = deskOf(data);
  const search = asked(own);
  const found = analyseSearch({ search, ladder }, desk);
  return { found, desk, search, ladder };
}
function told(own: object = {}, data: Record<string, string[]> = DATA) {
  const { found, ...rest } = searched(own, data);
  if (found.status === "refused") throw new Error(found.refusal.code);
  return { told: found, said: whatTheSearchSays(rest.search, found, title).map(plain), ...rest };
}

describe("what is chosen", () => {
  test.each(SearchMethod.options)("%s finds those that count, and its R² is that of the ladder it leads to", (method) => {
    const { told: found, desk, ladder, search } = told({ method });
    const { chosen } = found;
    expect(chosen.terms).toEqual(expect.arrayContaining(["x1", "x2", "x3", "group"]));
    // its columns as a ladder: R² and adjusted R² are read off it, not off the search
    if (chosen.columns.length === chosen.terms.length + 1) {
      const only = { ...searchLadder({ ...search, candidates: chosen.terms }, ladder), alsoComplete: CANDIDATES };
      const fitted = analyseLadder(desk.study, only, desk.responses);
      if (fitted.status === "refused") throw new Error(fitted.refusal.code);
      const { R2, adjustedR2 } = fitted.fit.steps.at(-1)!.model;
      expect(chosen.refitR2).toBeCloseTo(R2, 12);
      expect(chosen.refitAdjR2).toBeCloseTo(adjustedR2, 12);
    }
  });
  test("searches by terms take a category whole, and R² never falls with size along forward moves", () => {
    const { told: found } = told({ method: "forward-aic" });
    const { moves } = found.searched.forwardAic;
    const category = moves.find((move) => move.term === "group")!;
    expect(category.df1).toBe(2);
    moves.reduce((before, move) => {
      expect(move.R2).toBeGreaterThan(before);
      return move.R2;
    }, found.searched.ground.controlsR2);
  });
  test("by p all that came in did so below the limit, and a limit that nothing reaches chooses nothing", () => {
    for (const move of told({ method: "forward-p", enter: 0.01 }).told.searched.forwardP.moves) expect(move.p).toBeLessThan(0.01);
    const { told: none, said } = told({ method: "forward-p", candidates: ["z1"], enter: 1e-9 });
    expect(none.chosen.terms).toEqual([]);
    expect(said[0]).toBe("By forward by p none of the candidates is chosen.");
  });
  test("controls are in at every size: nothing chosen has their R², and no candidate that they hold already", () => {
    const { told: found } = told({ candidates: ["c", "z1"], controls: 1 });
    expect(found.searched.ground.terms.map((term) => term.name)).toEqual(["z1"]);
    for (const method of SearchMethod.options) expect(found.searched.bySize[method][0]).toMatchObject({ size: 0, columns: [] });
    expect(found.searched.bySize.lasso[0]!.R2).toBeCloseTo(found.searched.ground.controlsR2, 12);
  });
  test("the sparser of two points of the lasso has no more columns; its folds may be given", () => {
    const [sparse, full] = ["one-se", "minimum"].map((at) => told({ at }).told.chosen);
    expect(sparse!.size).toBeLessThanOrEqual(full!.size);
    expect(sparse!.lambda!).toBeGreaterThanOrEqual(full!.lambda!);
    const given = told({ folds: "half" }, { ...DATA, half: cells(N, (i) => `fold ${i % 2}`) }).told;
    expect(given.searched.foldNames).toEqual(["fold 0", "fold 1"]);
  });
});

describe("what cannot be had is a sentence", () => {
  const refused = (data: Record<string, string[]>, own: object = {}) => {
    const { found } = searched(own, data);
    if (found.status !== "refused") throw new Error("it is told");
    return refusalWords(found.refusal, title).what;
  };
  test("a perfect fit", () => expect(refused({ ...DATA, y: DATA.x1! })).toBe("Step 2 fits perfectly: nothing is left to look at."));
  test("more predictors than respondents", () => {
    const few = Object.fromEntries(Object.entries(DATA).map(([name, list]) => [name, list.slice(0, 8)]));
    expect(refused(few)).toMatch(/8/);
  });
  test("an outcome that does not vary", () => expect(refused({ ...DATA, y: cells(N, () => 3) })).toMatch(/<y>/));
  test("a column twice comes in once; one that the controls determine is named", () => {
    const { told: found, said } = told({ candidates: ["x1", "again", "like", "z1"], method: "stepwise-aic" }, { ...DATA, again: DATA.x1!, like: cells(N, (i) => 3 - 2 * Number(DATA.c![i])) }); // prettier-ignore
    expect(found.chosen.terms).toContain("x1");
    expect(found.chosen.terms).not.toContain("again");
    expect(said.join(" ")).toContain("Left out, because the controls determine it: <like>.");
  });
  test("folds with gaps, of one kind, or without which the controls cannot be fitted", () => {
    const reason = (half: string[], own: Record<string, string[]> = {}, ladder = ladderOf(["c"], ["x1"])) => {
      const { found, search } = searched({ folds: "half" }, { ...DATA, half, ...own }, ladder);
      if (found.status === "refused") throw new Error(found.refusal.code);
      return whatTheSearchSays(search, found, title).map(plain).join(" ");
    };
    expect(reason(cells(N, (i) => (i === 4 ? "" : `f${i % 4}`)))).toContain("some respondents are in no fold");
    expect(reason(cells(N, () => "all"))).toContain("all are in one fold");
    const site = cells(N, (i) => (i < 40 ? "hill" : "dale"));
    const told = reason(
      cells(N, (i) => (i < 40 ? "f1" : `f${2 + (i % 3)}`)),
      { site },
      ladderOf(["site"], ["x1"]),
    );
    expect(told).toContain("without the fold f1 the controls cannot be fitted");
    expect(told).toContain("The point with the largest adjusted R² is shown.");
  });
});

test("drawn again: ranges joined in any order are one, the table has every candidate, and what counts stands first", () => {
  const { desk, ladder } = searched();
  const question = { search: asked({ resamples: 40, method: "stepwise-aic" }), ladder };
  const [first, rest] = [stabilityOf(question, desk, { first: 0, count: 15 }), stabilityOf(question, desk, { first: 15, count: 25 })];
  const joined = joinedStability([rest, first])!;
  expect(joined).toEqual(stabilityOf(question, desk, { first: 0, count: 40 }));
  const table = stabilityTable(joined, "L", title).sections[0]!.rows;
  expect(table.map((row) => row[0]).sort()).toEqual(CANDIDATES.map((name) => `<${name}>`).sort());
  expect(["<x1>", "<x2>", "<x3>", "<group>"]).toContain(table[0]![0]);
  expect(whatStabilitySays(joined, title).map(plain)[0]).toMatch(/just these candidates come out in \d+ of 40 samples/);
  const csv = stabilityCsv(joined).trim().split("\r\n");
  expect(csv.slice(1).map((line) => Number(line.split(",")[1]))).toEqual([...joined.drawn.times]);
});

test("a size set by hand is said, and no column beyond it is taken", () => {
  const { told: found, said } = told({ method: "least-angle", size: 2 });
  expect(found.chosen.size).toBeLessThanOrEqual(2);
  expect(said.join(" ")).toContain("The size is set by hand: of the points with at most 2 columns");
});

test("what comes in and goes from size to size adds up to what is in, a category by its name when it comes whole", () => {
  const { told: found } = told();
  for (const row of searchRows(found, title)) {
    const points = found.searched.bySize[row.key];
    expect(row.cells.map((cell) => cell.size)).toEqual(points.map((point) => point.size));
    const inside = new Set<string>();
    row.cells.forEach((cell) => {
      cell.went.forEach((name) => inside.delete(name) || inside.delete("<group>"));
      cell.came.forEach((name) => inside.add(name));
    });
    if (row.key.startsWith("forward-")) expect(inside.has("<group>")).toBe(found.searched.bySize[row.key].at(-1)!.columns.some((name) => name.startsWith("group"))); // prettier-ignore
    if (!points.at(-1)!.columns.some((name) => name.startsWith("group"))) expect(inside.size).toBe(points.at(-1)!.size);
  }
});

test("saved, names are those of the study in the table and those of the results in the CSV, and both say that it is exploratory or what of", () => {
  const { told: found, search } = told();
  const html = tableAsHtml(searchTable(search, found, "Ladder", title));
  expect(html).toContain("&lt;group: home&gt;");
  expect(html).toContain("exploratory");
  const lines = searchCsv(found).trim().split("\r\n");
  expect(lines[0]).toContain("method,columns,R2,adjusted_R2,refit_R2,refit_adjusted_R2,held_out_R2,which");
  const forward = lines.filter((line) => line.startsWith("forward-aic,"));
  expect(forward).toHaveLength(found.searched.bySize["forward-aic"].length);
  expect(Number(forward.at(-1)!.split(",")[4])).toBe(found.searched.bySize["forward-aic"].at(-1)!.refitR2);
  expect(lines.some((line) => line.includes("group[home]"))).toBe(true);
});
