import type { ReactElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { TOKENS } from "../theme/token-values";

/** A chart as the text of an SVG file, drawn without a live page: colours and faces stand in it by their values. */
export interface DrawnChart {
  svg: string;
  /** In units of the picture. */
  width: number;
  height: number;
}

/**
 * @param chart an element whose outermost part is an <svg> with a viewBox, or that holds several, each in its figure
 * @param faces rules for the type faces that are to go with it; "" where the reader's own will do
 */
export function drawChart(chart: ReactElement, faces = ""): DrawnChart {
  const drawn = renderToStaticMarkup(chart);
  const pictures = drawn.match(/<svg[\s\S]*?<\/svg>/g) ?? [];
  const markup = pictures.length > 1 ? besideOneAnother(drawn) : (pictures[0] ?? "");
  const [, width, height] = /viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(markup) ?? [];
  if (width === undefined || height === undefined) throw new RangeError("a chart is an svg with a viewBox");
  const head = (svg: string) => svg.replace(/ (width|height|style)="[^"]*"/g, "");
  const sized = markup.replace(/^<svg[^>]*>/, (tag) =>
    head(tag).replace("<svg", `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"`),
  );
  const svg = valued(sized).replace(/^(<svg[^>]*>)/, faces === "" ? "$1" : `$1<style>${faces.replaceAll("$", "$$$$")}</style>`);
  return { svg, width: Number(width), height: Number(height) };
}

const GAP = 24;
const LINE = 18;

/** Several pictures as one: two in a row, each below what its figure is called and above what is said of it. */
function besideOneAnother(drawn: string): string {
  const placed = [
    ...drawn.matchAll(/<figcaption[^>]*>([\s\S]*?)<\/figcaption>\s*(<svg[\s\S]*?<\/svg>)(?:\s*<p[^>]*>([\s\S]*?)<\/p>)?/g),
  ].map(([, title, svg, note]) => {
    const [, width, height] = /viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(svg!)!;
    return { title: bare(title!), note: bare(note ?? ""), svg: svg!, width: Number(width), height: Number(height) };
  });
  const wide = Math.max(...placed.map((one) => one.width)) + GAP;
  const high = Math.max(...placed.map((one) => one.height)) + 2 * LINE + GAP;
  const pieces = placed.map(({ title, note, svg, width, height }, k) => {
    const [x, y] = [(k % 2) * wide, Math.floor(k / 2) * high];
    const inside = svg.replace(/^<svg[^>]*>/, (tag) => tag.replace(/ (width|height|style)="[^"]*"/g, "").replace("<svg", `<svg x="${x}" y="${y + LINE}" width="${width}" height="${height}"`)); // prettier-ignore
    const text = (at: number, weight: number, words: string) =>
      `<text x="${x}" y="${at}" font-size="12" font-weight="${weight}" fill="var(--ink)">${words}</text>`;
    return `${text(y + 12, 600, title)}${inside}${note === "" ? "" : text(y + LINE + height + 12, 400, note)}`;
  });
  const rows = Math.ceil(placed.length / 2);
  return `<svg viewBox="0 0 ${2 * wide - GAP} ${rows * high - GAP}" font-family="var(--sans)">${pieces.join("")}</svg>`;
}

/** Text without what it is set in. */
const bare = (markup: string) => markup.replace(/<[^>]*>/g, "");

/** Tokens by their values; quotation marks inside an attribute become single ones. */
function valued(markup: string): string {
  // what is the colour of the page stands on white in a file
  const value = (name: string) => (name === "--paper" ? "#ffffff" : (TOKENS[name] ?? ""));
  return markup.replace(/var\((--[\w-]+)\)/g, (_, name: string) => value(name).replaceAll('"', "'"));
}
