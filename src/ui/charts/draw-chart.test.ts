import { readFileSync } from "node:fs";
import { createElement } from "react";
import { TOKENS } from "../theme/token-values";
import { drawChart } from "./draw-chart";
import { ScreeChart } from "./ScreeChart";

const chart = createElement(ScreeChart, {
  eigenvalues: [2.5, 1.2, 0.8, 0.5],
  random: [1.3, 1.1, 0.9, 0.7],
  retained: 2,
  title: "Scree",
  format: (v) => v.toFixed(1),
});

test("a chart is drawn where there is no page, with its colours by their values", () => {
  expect(typeof window).toBe("undefined");
  const { svg, width, height } = drawChart(chart, "@font-face{font-family:'X'}");
  expect([width, height]).toEqual([640, 216]);
  expect(svg).toMatch(
    /^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg" width="640" height="216" [^>]*viewBox="0 0 640 216"[^>]*><style>@font-face/,
  );
  expect(svg).not.toContain("var(--");
  expect(svg).toContain(TOKENS["--plum"]);
  expect(svg).toContain("Eigenvalue");
  expect(svg.endsWith("</svg>")).toBe(true);
});

test("the values are those of the style sheet", () => {
  const sheet = readFileSync("src/ui/theme/tokens.css", "utf8");
  const inSheet = Object.fromEntries([...sheet.matchAll(/^ {2}(--[\w-]+): ([^;]+);/gm)].map(([, name, value]) => [name, value]));
  expect(TOKENS).toEqual(inSheet);
});

test("several pictures are one file: two in a row, each below its name and above what is said of it, nothing on anything, well-formed", () => {
  const figure = (key: number) =>
    createElement("figure", { key }, createElement("figcaption", null, `Picture ${key} & more`), chart, createElement("p", null, "a ", createElement("i", null, "p"), ` < .0${key}`)); // prettier-ignore
  const { svg, width, height } = drawChart(createElement("div", null, [1, 2, 3].map(figure)));
  expect(svg).not.toMatch(/<(div|figure|figcaption|p|i)[ >]/);
  const placed = [...svg.matchAll(/<svg x="([\d.]+)" y="([\d.]+)" width="([\d.]+)" height="([\d.]+)"/g)].map((m) => m.slice(1).map(Number));
  expect(placed).toHaveLength(3);
  for (const [x, y, w, h] of placed as [number, number, number, number][]) {
    expect(x + w).toBeLessThanOrEqual(width);
    expect(y + h).toBeLessThanOrEqual(height);
    const others = placed.filter((one) => one[0] !== x || one[1] !== y) as [number, number, number, number][];
    for (const [ox, oy, ow, oh] of others) expect(x + w <= ox || ox + ow <= x || y + h <= oy || oy + oh <= y).toBe(true);
  }
  expect(svg).toContain("Picture 3 &amp; more");
  expect(svg).toContain("a p &lt; .02");
  // every tag that is opened is closed
  const open: string[] = [];
  for (const [, closing, name, , self] of svg.matchAll(/<(\/?)([a-z]+)([^>]*?)(\/?)>/gi)) {
    if (self) continue;
    if (closing) expect(open.pop()).toBe(name);
    else open.push(name!);
  }
  expect(open).toEqual([]);
});
