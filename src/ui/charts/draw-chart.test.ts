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
