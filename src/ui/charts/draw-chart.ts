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
 * @param chart an element whose outermost part is an <svg> with a viewBox
 * @param faces rules for the type faces that are to go with it; "" where the reader's own will do
 */
export function drawChart(chart: ReactElement, faces = ""): DrawnChart {
  const drawn = renderToStaticMarkup(chart);
  const markup = /<svg[\s\S]*<\/svg>/.exec(drawn)?.[0] ?? "";
  const [, width, height] = /viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(markup) ?? [];
  if (width === undefined || height === undefined) throw new RangeError("a chart is an svg with a viewBox");
  const head = (svg: string) => svg.replace(/ (width|height|style)="[^"]*"/g, "");
  const sized = markup.replace(/^<svg[^>]*>/, (tag) =>
    head(tag).replace("<svg", `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"`),
  );
  const svg = valued(sized).replace(/^(<svg[^>]*>)/, faces === "" ? "$1" : `$1<style>${faces.replaceAll("$", "$$$$")}</style>`);
  return { svg, width: Number(width), height: Number(height) };
}

/** Tokens by their values; quotation marks inside an attribute become single ones. */
function valued(markup: string): string {
  return markup.replace(/var\((--[\w-]+)\)/g, (_, name: string) => (TOKENS[name] ?? "").replaceAll('"', "'"));
}
