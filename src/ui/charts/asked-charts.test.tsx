import { fireEvent, render, screen, within } from "@testing-library/react";
import { analyseLook } from "@/study/analyse/analyse-look";
import { Look } from "@/study/model/look";
import { Study } from "@/study/model/study";
import { StudyColumns } from "@/study/prepare/study-columns";
import { sourceOf } from "@/study/test-support/columns";
import { barsOf, isIn } from "./bars";
import { drawChart } from "./draw-chart";
import { GroupsChart } from "./GroupsChart";
import { MeansChart } from "./MeansChart";
import { PredictedLines } from "./PredictedLines";
import { MOST_POINTS, ScatterChart, scalesOf } from "./ScatterChart";
import { ShapeChart } from "./ShapeChart";
import { ShareBars } from "./ShareBars";
import { wrapped } from "./wrapped";

const two = (v: number) => v.toFixed(2);
const numbersOf = (elements: Iterable<Element>, name: string) => [...elements].map((e) => Number(e.getAttribute(name)));
/** Places of labels that stand in one column of a picture, from top to bottom. */
const apartBy = (elements: Element[]) => numbersOf(elements, "y").sort((a, b) => a - b).slice(1).map((y, i, all) => y - (i === 0 ? numbersOf(elements, "y").sort((a, b) => a - b)[0]! : all[i - 1]!)); // prettier-ignore
const LONG = "District number 07 of the very long names, with more to come";

test("a long name is wrapped in at most three lines, and cut where even that is not enough", () => {
  expect(wrapped("online")).toEqual(["online"]);
  const lines = wrapped(LONG);
  expect(lines.length).toBeLessThanOrEqual(3);
  for (const line of lines) expect(line.length).toBeLessThanOrEqual(32);
  expect(wrapped("x".repeat(80))[0]).toMatch(/…$/);
  expect(wrapped(`${"word ".repeat(40)}end`).at(-1)).toMatch(/…$/);
});

describe("slopes of groups", () => {
  const mark = (value: number) => ({ value, lower: value - 0.2, upper: value + 0.2 });
  const rows = [
    { name: "Age", marks: [mark(0), mark(0.1), null], span: null },
    { name: "Support", marks: [mark(0.1), mark(0.9), mark(0.5)], span: { first: 1, second: 0, told: true } },
    { name: "Hours", marks: [mark(0.3), mark(0.2), mark(0.25)], span: { first: 0, second: 1, told: false } },
  ];
  const chart = (groups: string[], named = 1) => (
    <GroupsChart rows={rows} groups={groups} named={named} title="Slopes" axis="β" zero format={two} />
  );

  test("groups are named once, at the row that differs most, without standing on each other; what is not told has no mark", () => {
    render(chart(["in person", "online", "blended"]));
    expect(screen.getByRole("img", { name: /^Slopes: Age, in person 0.00, online 0.10, blended not told; Support/ })).toBeVisible();
    const names = ["in person", "online", "blended"].map((name) => screen.getByText(name));
    for (const gap of apartBy(names)) expect(gap).toBeGreaterThanOrEqual(13);
    expect(screen.getByText("Support").getAttribute("font-weight")).toBe("600");
    expect(screen.getByText("Age").getAttribute("font-weight")).toBe("400");
  });

  test("the span between two marks is thick where they can be told apart, dotted where not, and none where nothing is", () => {
    const { container } = render(chart(["a", "b", "c"]));
    const spans = [...container.querySelectorAll("line[stroke-opacity]")];
    expect(numbersOf(spans, "stroke-width")).toEqual([4, 1]);
    expect(spans[1]!.getAttribute("stroke-dasharray")).toBe("2 3");
  });

  test("names that are cut stand whole in a legend; the fourth group and later have letters", () => {
    const groups = [LONG, `${LONG} 2`, "short"];
    const { container, rerender } = render(chart(groups));
    expect(screen.getAllByText(/^District number 07/).length).toBe(4); // cut at the row, whole below
    expect(container.querySelectorAll("circle")).toHaveLength(0);
    const many = rows.map((row) => ({ ...row, marks: [mark(0), mark(0.1), mark(0.2), mark(0.3), mark(0.4)] }));
    rerender(<GroupsChart rows={many} groups={["a", "b", "c", "d", "e"]} named={0} title="Slopes" axis="β" zero={false} format={two} />);
    expect(screen.getAllByText("D")).toHaveLength(3);
    expect(screen.getAllByText("E")).toHaveLength(3);
  });
});

test("24 levels of long names: every name stands clear of the next, the line it is held against is named, the axis says what it is", () => {
  const rows = Array.from({ length: 24 }, (_, i) => ({
    name: LONG.replace("07", String(i).padStart(2, "0")),
    marks: [{ series: "", value: i, lower: i - 1, upper: i + 1, told: i % 2 === 0 }],
  }));
  const { container } = render(
    <MeansChart rows={rows} series={[""]} line={{ value: 11.5, name: "mean of all" }} title="Reading" axis="points" format={two} />,
  );
  const names = [...container.querySelectorAll("text")].filter((text) => text.getAttribute("text-anchor") === "end");
  for (const gap of apartBy(names)) expect(gap).toBeGreaterThanOrEqual(12);
  expect(screen.getByText("mean of all 11.50")).toBeVisible();
  expect(screen.getByText("points")).toBeVisible();
  const fills = [...container.querySelectorAll("path")].map((path) => path.getAttribute("fill"));
  expect(fills.filter((fill) => fill === "var(--paper)")).toHaveLength(12); // hollow where it cannot be told
  const height = Number(screen.getByRole("img").getAttribute("viewBox")!.split(" ")[3]);
  expect(Math.max(...numbersOf(names, "y"))).toBeLessThan(height);
});

const frame = { width: 720, height: 420, names: true, x: [0, 10] as const, y: [0, 5] as const };
const points = (n: number) => ({ x: Float64Array.from({ length: n }, (_, i) => (i % 11) * 0.9), y: Float64Array.from({ length: n }, (_, i) => (i % 7) * 0.7), group: null }); // prettier-ignore
const scatter = (n: number, more: Partial<Parameters<typeof ScatterChart>[0]> = {}) => (
  <ScatterChart points={points(n)} lines={[]} marked={new Set()} cursor={null} frame={frame} title="Joy against effort" axis="effort" outcome="joy" format={two} {...more} />
); // prettier-ignore

describe("a scatter", () => {
  test("a respondent is a point at its place; above five thousand, squares hold all of them", () => {
    const { container, rerender } = render(scatter(40));
    const { x, y } = scalesOf(frame, false);
    const dots = [...container.querySelectorAll("circle")];
    expect(dots).toHaveLength(40);
    expect(Number(dots[3]!.getAttribute("cx"))).toBeCloseTo(x(2.7), 6);
    expect(Number(dots[3]!.getAttribute("cy"))).toBeCloseTo(y(2.1), 6);
    rerender(scatter(MOST_POINTS + 1));
    expect(container.querySelectorAll("circle")).toHaveLength(0);
    const dark = [...container.querySelectorAll('rect[fill="var(--pencil)"]')];
    expect(dark).toHaveLength(77); // 11 · 7 places
    expect(Math.max(...numbersOf(dark, "fill-opacity"))).toBeCloseTo(0.8, 5);
  });

  test("the marked stand above the others in plum, many of them as squares; the picture says how many", () => {
    const { container, rerender } = render(scatter(40, { marked: new Set([1, 5]) }));
    expect(container.querySelectorAll('circle[fill="var(--plum)"]')).toHaveLength(2);
    expect(screen.getByRole("img", { name: "Joy against effort: 40 respondents; 2 marked" })).toBeVisible();
    rerender(scatter(3000, { marked: new Set(Array.from({ length: 2000 }, (_, i) => i)) }));
    expect(container.querySelectorAll('circle[fill="var(--plum)"]')).toHaveLength(0);
    expect(container.querySelectorAll('rect[fill="var(--plum)"]').length).toBeGreaterThan(0);
  });

  test("lines are told apart by dash and name at their end; what would overlap is moved apart; the faint one has no name", () => {
    const line = (name: string, group: number | null, look: "line" | "faint" | "smooth", at: number) => ({ name, group, look, points: [0, 10].map((v) => ({ x: v, y: at, lower: at - 0.1, upper: at + 0.1 })) }); // prettier-ignore
    const { container } = render(scatter(10, { lines: [line("online", 0, "line", 2), line("blended", 1, "line", 2.01), line("all", null, "faint", 3)]})); // prettier-ignore
    for (const gap of apartBy([screen.getByText("online"), screen.getByText("blended")])) expect(gap).toBeGreaterThanOrEqual(14);
    expect(screen.queryByText("all")).toBeNull();
    const dashes = [...container.querySelectorAll('path[fill="none"]')].map((path) => path.getAttribute("stroke-dasharray"));
    expect(new Set(dashes.slice(0, 2)).size).toBe(2);
  });

  test("it can be drawn without a page, to be saved", () => {
    const { svg, width, height } = drawChart(scatter(30, { marked: new Set([2]) }));
    expect(svg).toContain("effort");
    expect([width, height]).toEqual([720, 420]);
  });
});

test("respondents of predicted lines: points, or a grid by how many lie in each field", () => {
  const lines = [{ name: "low", points: [0, 10].map((x) => ({ x, y: 1, lower: 0.5, upper: 1.5 })) }];
  const chart = (respondents: Parameters<typeof PredictedLines>[0]["points"]) => <PredictedLines lines={lines} points={respondents} thick={[1, 9]} title="Joy" axis="effort" outcome="joy" format={two} />; // prettier-ignore
  const { container, rerender } = render(chart({ x: Float64Array.of(1, 2), y: Float64Array.of(1, 2) }));
  expect(container.querySelectorAll("circle")).toHaveLength(2);
  rerender(chart({ columns: 2, rows: 2, counts: Uint32Array.of(0, 4, 1, 0), x: [0, 10], y: [0, 4] }));
  const fields = [...container.querySelectorAll('rect[fill="var(--pencil)"]')];
  expect(fields).toHaveLength(2); // nobody is in the others
  expect(Number(fields[0]!.getAttribute("fill-opacity"))).toBeGreaterThan(Number(fields[1]!.getAttribute("fill-opacity")));
});

describe("a distribution", () => {
  test.each<[string, (i: number) => number]>([
    ["tenths, whose edges are no round numbers", (i) => ((i * 37) % 301) / 10],
    ["anything", (i) => 10 * Math.sin(i * i)],
    ["a few values", (i) => 1 + (i % 5)],
    ["one value", () => 4],
  ])("%s: every respondent is in one bar, and a bar counts those who are in it", (_, value) => {
    const values = Array.from({ length: 700 }, (_, i) => value(i));
    const study = Study.parse({ format: "beta-step-study", version: 1, name: "s", codebook: [{ name: "v", kind: "number" }] });
    const responses = sourceOf({ v: values.map(String) });
    const desk = { study, responses, columns: new StudyColumns(study, responses), rows: 700 } as unknown as Parameters<typeof analyseLook>[1]; // prettier-ignore
    const look = Look.parse({ id: "l", name: "L", variables: ["v"] });
    const { columns } = analyseLook(look, desk) as Extract<ReturnType<typeof analyseLook>, { status: "looked" }>;
    const bars = barsOf(columns[0]!.shape!);
    for (const v of values) expect(bars.filter((bar) => isIn(bar, v))).toHaveLength(1);
    expect(bars.map(({ count }) => count)).toEqual(bars.map((bar) => values.filter((v) => isIn(bar, v)).length));
  });

  const values = { kind: "values" as const, values: [1, 2, 3, 4, 5].map((value) => ({ value, count: value * 2 })) };
  const bins = { kind: "bins" as const, histogram: { edges: [0, 1, 2, 3], counts: [5, 10, 0] }, outline: null, heaps: 1 };

  test("a bar a value, as high as it is frequent; a pressed bar says which it is", () => {
    const pressed = jest.fn();
    const { container } = render(<ShapeChart shape={values} name="Item" width={300} height={120} format={two} wide onBar={pressed} />);
    const bars = [...container.querySelectorAll('rect[fill="var(--rule)"]')];
    const heights = numbersOf(bars, "height");
    expect(heights.map((h) => h / heights[0]!)).toEqual([1, 2, 3, 4, 5].map((v) => expect.closeTo(v, 6)));
    fireEvent.click(bars[2]!);
    expect(pressed).toHaveBeenCalledWith(expect.objectContaining({ from: 2.5, to: 3.5, count: 6 }));
    expect(within(container).getByText("3.00: 6")).toBeInTheDocument();
  });

  test("the marked are the plum part of their bars", () => {
    const { container } = render(
      <ShapeChart shape={bins} name="Score" width={300} height={120} format={two} wide marked={[0.5, 0.7, 1.2, 3]} />,
    );
    const plum = [...container.querySelectorAll('rect[fill="var(--plum)"]')];
    expect(plum).toHaveLength(3); // the highest value belongs to the last bar
    const [of, own] = [numbersOf(container.querySelectorAll('rect[fill="var(--rule)"]'), "height"), numbersOf(plum, "height")];
    expect(own[0]! / of[0]!).toBeCloseTo(2 / 5, 6);
    expect(own[1]! / of[1]!).toBeCloseTo(1 / 10, 6);
  });

  test("levels of a category: bars by their share, groups below each other", () => {
    const mark = (series: string, share: number, count: number) => ({ series, share, count });
    const { container } = render(<ShareBars name="Format" rows={[{ name: "online", marks: [mark("a", 0.5, 10), mark("b", 0.25, 3)] }, { name: LONG, marks: [mark("a", 0.5, 10), mark("b", 0.75, 9)] }]} />); // prettier-ignore
    const widths = numbersOf(container.querySelectorAll("rect"), "width");
    expect(widths[1]! / widths[0]!).toBeCloseTo(0.5, 6);
    expect(widths[3]! / widths[2]!).toBeCloseTo(1.5, 6);
    expect(screen.getByRole("img", { name: /^Format: online 10, 3; District/ })).toBeVisible();
  });
});
