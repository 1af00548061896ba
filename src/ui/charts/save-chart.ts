import type { ReactElement } from "react";
import { saveBlob } from "@/ui/parts/save-file";
import type { DrawnChart } from "./draw-chart";

/** How many pixels a unit of the picture gets in a PNG: sharp in print. */
const SCALE = 3;

/** Saves a chart as SVG with the page's colours and faces inside, so that it looks the same everywhere. */
export async function saveAsSvg(chart: ReactElement, name: string): Promise<void> {
  const { svg } = await standalone(chart);
  saveBlob(name, new Blob([svg], { type: "image/svg+xml" }));
}

/** Saves it as PNG on paper white. @throws when the picture cannot be drawn */
export async function saveAsPng(chart: ReactElement, name: string): Promise<void> {
  saveBlob(name, await pngOf(await standalone(chart), SCALE));
}

/** A drawn chart as pixels, so many a unit, on white. @throws when the picture cannot be drawn */
export async function pngOf({ svg, width, height }: DrawnChart, scale: number): Promise<Blob> {
  const [across, down] = [Math.round(width * scale), Math.round(height * scale)];
  const url = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  try {
    const image = new Image(across, down);
    image.src = url;
    await image.decode();
    const canvas = document.createElement("canvas");
    canvas.width = across;
    canvas.height = down;
    const context = canvas.getContext("2d")!;
    context.fillStyle = "#ffffff";
    context.fillRect(0, 0, across, down);
    context.drawImage(image, 0, 0, across, down);
    const png = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, "image/png"));
    if (!png) throw new Error("no picture");
    return png;
  } finally {
    URL.revokeObjectURL(url);
  }
}

/** A chart as SVG with the page's colours and faces inside. */
export async function standalone(chart: ReactElement): Promise<DrawnChart> {
  const { drawChart } = await import("./draw-chart"); // what draws without a page is fetched when a picture is saved
  const letters = drawChart(chart).svg.replace(/<[^>]*>/g, "");
  return drawChart(chart, await facesFor(letters));
}

/** The page's upright text faces that hold a text's letters, as rules with the font inside. */
async function facesFor(text: string): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules]).filter((rule) => rule instanceof CSSFontFaceRule);
  const wanted = rules.filter((rule) => {
    const { style } = rule;
    const face = style.getPropertyValue("font-family").replaceAll('"', "");
    const upright = !style.getPropertyValue("font-style").includes("italic");
    return /^(Source Sans 3 Variable|DejaVu Sans Signs)$/.test(face) && upright && covers(style.getPropertyValue("unicode-range"), text);
  });
  return (await Promise.all(wanted.map(withFontInside))).join("\n");
}

function covers(ranges: string, text: string): boolean {
  const spans = ranges.split(",").map((range) => {
    const [from, to] = range.trim().replace(/^U\+/i, "").split("-");
    return [parseInt(from!.replaceAll("?", "0"), 16), parseInt((to ?? from!).replaceAll("?", "F"), 16)] as const;
  });
  return ranges === "" || [...text].some((sign) => spans.some(([from, to]) => sign.codePointAt(0)! >= from && sign.codePointAt(0)! <= to));
}

async function withFontInside(rule: CSSFontFaceRule): Promise<string> {
  const address = /url\("?([^")]+)"?\)/.exec(rule.style.getPropertyValue("src"))?.[1];
  if (address === undefined) return "";
  const font = await (await fetch(new URL(address, rule.parentStyleSheet?.href ?? document.baseURI))).blob();
  const data = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(new Error("the font could not be read"));
    reader.readAsDataURL(font);
  });
  return rule.cssText.replace(/src:[^;]+;/, `src: url(${data}) format("woff2");`);
}
