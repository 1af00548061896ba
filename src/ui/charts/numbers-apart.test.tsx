import { fireEvent, render, screen } from "@testing-library/react";
import type { ReactElement } from "react";
import { formatNumber } from "@/study/report/format-number";
import { labelWidth } from "./axis-ticks";
import { DifferenceChart } from "./DifferenceChart";
import { EffectAlongChart } from "./EffectAlongChart";
import { GroupsChart } from "./GroupsChart";
import { MeansChart } from "./MeansChart";
import { PredictedLines } from "./PredictedLines";
import { ReplicateChart } from "./ReplicateChart";
import { ResidualChart } from "./ResidualChart";
import { ResidualHistogram } from "./ResidualHistogram";
import { ScatterChart } from "./ScatterChart";
import { ScoreHistogram } from "./ScoreHistogram";

/** Numbers in print, as the pages hand it to their charts. */
const print = (v: number) => formatNumber(v);
const numeric = (text: Element) => /^[−\d.·×⁰¹²³⁴⁵⁶⁷⁸⁹⁻ \u202f]+$/.test(text.textContent!);

interface Placed {
  text: string;
  from: number;
  to: number;
  y: number;
}
/** The numbers of a picture and where they stand. */
function numbersIn(container: HTMLElement): Placed[] {
  const svg = container.querySelector("svg")!;
  return [...svg.querySelectorAll("text")].filter(numeric).map((text) => {
    const size = Number(text.getAttribute("font-size") ?? svg.getAttribute("font-size"));
    const [x, y] = ["x", "y"].map((name) => Number(text.getAttribute(name))) as [number, number];
    const width = labelWidth(text.textContent!, size);
    const from = x - { start: 0, middle: width / 2, end: width }[text.getAttribute("text-anchor") ?? "start"]!;
    return { text: text.textContent!, from, to: from + width, y };
  });
}
function faultsOf(container: HTMLElement): string[] {
  const all = numbersIn(container);
  const wide = Number(container.querySelector("svg")!.getAttribute("viewBox")!.split(" ")[2]);
  const faults = all.filter(({ from, to }) => from < -1 || to > wide + 1).map(({ text }) => `${text} is cut at the edge`);
  all.forEach((a, i) =>
    all.slice(0, i).forEach((b) => {
      if (Math.abs(a.y - b.y) < 8 && a.from < b.to && b.from < a.to) faults.push(`${b.text} and ${a.text} stand on each other`);
    }),
  );
  return faults;
}

const bars = (from: number, step: number) => ({ edges: [0, 1, 2, 3, 4].map((k) => from + k * step), counts: [3, 9, 14, 5] });
const path = [0, 1, 2, 3, 4];
/** Every picture with an axis of numbers, of outcomes and predictors that are so large and lie so far from zero. */
const PICTURES: Readonly<Record<string, (size: number, far: number) => ReactElement>> = {
  "predicted lines": (size, far) => (
    <PredictedLines lines={[{ name: "low", points: path.map((k) => ({ x: (far + k) * size, y: (far + 2 * k) * size, lower: null, upper: null })) }]} points={null} thick={[far * size, (far + 4) * size]} title="T" axis="x" outcome="y" format={print} />
  ),
  "an effect along a moderator": (size, far) => (
    <EffectAlongChart curves={[{ name: "", points: path.map((k) => ({ x: (far + k) * size, y: (k - 2) * size, lower: (k - 3) * size, upper: (k - 1) * size })) }]} bounds={[(far + 1) * size, (far + 3) * size]} unsure={[]} histogram={bars(far * size, size)} marks={[]} unit={size} title="T" axis="m" format={print} />
  ),
  means: (size, far) => (
    <MeansChart rows={path.map((k) => ({ name: `level ${k}`, marks: [{ series: "", value: (far + k) * size, lower: (far + k - 1) * size, upper: (far + k + 1) * size, told: true }] }))} series={[""]} line={null} title="T" axis="y" format={print} />
  ),
  "slopes of groups": (size, far) => (
    <GroupsChart rows={[{ name: "x", marks: [1, 2].map((k) => ({ value: (far + k) * size, lower: (far + k - 1) * size, upper: (far + k + 1) * size })), span: null }]} groups={["a", "b"]} named={0} title="T" axis="b" zero={false} format={print} />
  ),
  replicates: (size, far) => (
    <ReplicateChart histogram={bars(far * size, size)} interval={{ estimate: (far + 2) * size, lower: (far + 0.4) * size, upper: (far + 3.7) * size }} title="T" axis="b" format={print} />
  ),
  "replicates with limits at their ends": (size, far) => (
    <ReplicateChart histogram={bars(far * size, size)} interval={{ estimate: (far + 2) * size, lower: far * size, upper: (far + 4) * size }} title="T" axis="b" format={print} />
  ),
  differences: (size) => (
    <DifferenceChart title="T" histogram={bars(-2 * size, size)} quartiles={[-size, 0, size]} axis="y" format={print} />
  ),
  residuals: (size, far) => (
    <ResidualChart title="T" points={path.map((k) => ({ row: k + 1, x: (far + k) * size, y: (k - 2) * size }))} curves={[]} zero={0} axis="x" outcome="e" format={print} lit={null} onLight={() => {}} />
  ),
  "a distribution of residuals": (size) => (
    <ResidualHistogram title="T" histogram={{ ...bars(-2 * size, size), normal: [{ x: -2 * size, y: 1 }, { x: 2 * size, y: 2 }] }} format={print} />
  ),
  scores: (size, far) => <ScoreHistogram histogram={bars(far * size, size)} width={300} height={120} title="T" n={31} format={print} />,
  "a scatter": (size, far) => (
    <ScatterChart points={{ x: Float64Array.from(path, (k) => (far + k) * size), y: Float64Array.from(path, (k) => (far - k) * size), group: null }} lines={[]} marked={new Set()} cursor={null} frame={{ width: 520, height: 380, x: [far * size, (far + 4) * size], y: [(far - 4) * size, far * size], names: true }} title="T" axis="x" outcome="y" format={print} />
  ),
}; // prettier-ignore

test.each(Object.keys(PICTURES))(
  "law: numbers of %s stand clear of each other and inside the picture, however large, small or far from zero",
  (name) => {
    const faults: string[] = [];
    for (const power of [-9, -4, -1, 0, 2, 5, 8, 12])
      for (const far of [0, 7, -300]) {
        const { container, unmount } = render(PICTURES[name]!(10 ** power, far));
        faults.push(...faultsOf(container).map((fault) => `${fault} at 10^${power}, ${far} from zero`));
        expect(numbersIn(container).length).toBeGreaterThan(1);
        unmount();
      }
    expect(faults).toEqual([]);
  },
);

describe("bars", () => {
  const rects = (container: HTMLElement) => [...container.querySelectorAll("rect")].filter((r) => r.querySelector("title")).map((r) => ({ height: Number(r.getAttribute("height")), fill: r.getAttribute("fill"), said: r.textContent! })); // prettier-ignore
  test.each(["replicates", "differences", "a distribution of residuals", "scores", "an effect along a moderator"])(
    "of %s are as high as they count, and each says from where to where",
    (name) => {
      const { container } = render(PICTURES[name]!(1, 0));
      const all = rects(container).filter(({ said }) => said.includes(" to "));
      expect(all.map(({ said }) => Number(said.split(": ")[1]))).toEqual([3, 9, 14, 5]);
      for (const { height, said } of all) expect(height / Number(said.split(": ")[1])).toBeCloseTo(all[0]!.height / 3, 6);
    },
  );
  test("replicates between the limits are dark, those beyond pale", () => {
    const { container } = render(<ReplicateChart histogram={bars(0, 1)} interval={{ estimate: 2, lower: 1, upper: 3 }} title="T" axis="b" format={print} />); // prettier-ignore
    expect(rects(container).map(({ fill }) => fill)).toEqual(["var(--plum-faint)", "var(--plum)", "var(--plum)", "var(--plum-faint)"]);
    expect(screen.getByRole("img", { name: "T: most near 2.00, limits at 1.00 and 3.00" })).toBeVisible();
  });
});

describe("the marks of an effect along a moderator", () => {
  const points = path.map((x) => ({ x, y: 2 * x - 4, lower: 2 * x - 5, upper: 2 * x - 3 }));
  const chart = (value: number, told: string[], more: object = {}) => (
    <EffectAlongChart curves={[{ name: "", points }]} bounds={[1.5]} unsure={[{ from: 1.5, to: 2.5 }]} histogram={bars(0, 1)} marks={[{ name: "low", value }]} unit={0.5} title="T" axis="m" format={print} onMove={(mark, to) => told.push(`${mark} to ${to}`)} onRest={() => told.push("rest")} {...more} />
  ); // prettier-ignore

  test("are sliders that arrow keys move by a unit, pages by ten, and never beyond the data", () => {
    const told: string[] = [];
    const { rerender } = render(chart(1, told));
    const mark = screen.getByRole("slider", { name: "low, value of m" });
    expect(mark.getAttribute("aria-valuetext")).toBe("1.00");
    for (const key of ["ArrowRight", "ArrowLeft", "PageDown", "PageUp", "a"]) fireEvent.keyDown(mark, { key });
    fireEvent.keyUp(mark, { key: "ArrowLeft" });
    expect(told).toEqual(["0 to 1.5", "0 to 0.5", "0 to 0", "0 to 4", "rest"]);
    rerender(chart(9, told)); // a mark beyond the data is not drawn
    expect(screen.queryByRole("slider")).toBeNull();
  });

  test("stand on the line of the effect; the stretch where its band holds zero is hatched from bound to bound", () => {
    const { container } = render(chart(3, []));
    const [low, high] = ["0", "4"].map((label) => Number(screen.getAllByText(label).at(-1)!.getAttribute("x"))) as [number, number];
    const unit = (high - low) / 4;
    const hatched = container.querySelector('rect[fill^="url("]')!;
    expect(Number(hatched.getAttribute("x"))).toBeCloseTo(low + 1.5 * unit, 6);
    expect(Number(hatched.getAttribute("width"))).toBeCloseTo(unit, 6);
    const at = screen.getByRole("slider").getAttribute("transform")!;
    expect(Number(/translate\(([\d.]+)/.exec(at)![1])).toBeCloseTo(low + 3 * unit, 6);
    const heights = ["0", "2"].map((label) => Number(screen.getAllByText(label)[0]!.getAttribute("y")) - 4) as [number, number];
    expect(Number(container.querySelector("circle")!.getAttribute("cy"))).toBeCloseTo(heights[1], 6); // 2·3 − 4
  });

  test("of several curves are not told by one: no bound, no stretch, a name at each end clear of the next", () => {
    const { container } = render(chart(3, [], { curves: [{ name: "first", points }, { name: "second", points }] })); // prettier-ignore
    expect(container.querySelector('rect[fill^="url("]')).toBeNull();
    const [one, other] = ["first", "second"].map((name) => Number(screen.getByText(name).getAttribute("y")));
    expect(Math.abs(one! - other!)).toBeGreaterThanOrEqual(13);
  });
});

test("the nearest respondent to the pointer is lit, and nobody where nobody is near", () => {
  const lit: (number | null)[] = [];
  const { container, rerender } = render(
    <ResidualChart title="T" points={[{ row: 4, x: 0, y: 0 }, { row: 9, x: 10, y: 1 }]} curves={[]} zero={null} axis="x" outcome="e" format={print} lit={null} onLight={(row) => lit.push(row)} />, // prettier-ignore
  );
  const svg = container.querySelector("svg")!;
  const [, , width, height] = svg.getAttribute("viewBox")!.split(" ").map(Number) as [number, number, number, number];
  svg.getBoundingClientRect = () => ({ left: 0, top: 0, width, height }) as DOMRect;
  const [first, second] = [...container.querySelector("path[stroke-linecap]")!.getAttribute("d")!.matchAll(/M([\d.]+) ([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]) as [number, number][]; // prettier-ignore
  // the DOM of the tests has no pointer events with a place; a mouse event of that name has
  const moveTo = (clientX: number, clientY: number) => fireEvent(svg, new MouseEvent("pointermove", { bubbles: true, clientX, clientY }));
  moveTo(first![0] + 3, first![1] - 2);
  moveTo(second![0] - 2, second![1] + 4);
  moveTo(width / 2, height / 2);
  fireEvent.pointerLeave(svg);
  expect(lit).toEqual([4, 9, null, null]);
  rerender(<ResidualChart title="T" points={[{ row: 4, x: 0, y: 0 }]} curves={[]} zero={null} axis="x" outcome="e" format={print} lit={4} onLight={() => {}} />); // prettier-ignore
  expect(screen.getByText("row 4")).toBeVisible();
});
