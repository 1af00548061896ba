import { FIGURE_KINDS } from "@/study/model/block";
import { offers } from "@/study/report/document/begin";
import { FIGURES } from "@/study/report/document/figures";
import type { Source } from "@/study/report/document/source";
import { wholeSource } from "@/study/test-support/whole-study";
import { drawChart } from "@/ui/charts/draw-chart";
import { chartOf } from "./FigureView";

let source: Source;
beforeAll(async () => {
  source = await wholeSource();
});
/** The picture of a figure as it goes into a file. */
function drawn(kind: (typeof FIGURE_KINDS)[number]) {
  const of = offers(source).flatMap(({ what }) => (what.kind === "figure" && what.of.kind === kind ? [what.of] : []))[0]!;
  const figure = FIGURES[kind].draw(of, source)!;
  const { svg, width, height } = drawChart(chartOf(figure.drawing));
  const picture = new DOMParser().parseFromString(svg, "image/svg+xml");
  return { figure, svg, width, height, picture, texts: [...picture.querySelectorAll("text")].map((text) => text.textContent!) };
}

test.each(FIGURE_KINDS)(
  "a figure of kind %s goes into a file as a whole picture: sound, of a size, with no colour that only a page knows",
  (kind) => {
    const { svg, picture, width, height, figure } = drawn(kind);
    expect(picture.querySelector("parsererror")).toBeNull();
    expect(Math.min(width, height)).toBeGreaterThan(60);
    expect(svg).not.toMatch(/NaN|undefined|var\(|Infinity/);
    expect(figure.marks.length).toBeGreaterThan(0);
    // every mark stands inside
    for (const circle of picture.querySelectorAll("circle")) {
      const place = [Number(circle.getAttribute("cx")), Number(circle.getAttribute("cy"))];
      expect(place.every((at) => Number.isFinite(at))).toBe(true);
    }
  },
);

test("means and groups are named as the study names them, lines at their ends", () => {
  for (const kind of ["means", "groups"] as const) for (const site of ["East", "North", "West"]) expect(drawn(kind).texts.join("\n")).toContain(site); // prettier-ignore
  const { figure, texts } = drawn("lines");
  const names = figure.drawing.chart === "lines" ? figure.drawing.picture.lines.map(({ name }) => name) : [];
  expect(names).toHaveLength(3); // low, middle and high values of the moderator
  for (const name of names) expect(texts).toContain(name);
});

test("the figure of the hypotheses shows each by its code, and a mark for each that has evidence", () => {
  const { texts, figure } = drawn("theory");
  const codes = source.study.hypotheses.filter((h) => h.ladder === "l").map((_, k) => `H${k + 1}`);
  for (const code of codes) expect(texts.some((text) => text.includes(code))).toBe(true);
  expect(figure.marks.join("\n")).toContain("H1");
});

test("of what is not there any more there is no figure", () => {
  for (const kind of FIGURE_KINDS.filter((one) => one !== "theory")) expect(FIGURES[kind].draw({ kind, ids: ["gone"] }, source)).toBeNull();
});
