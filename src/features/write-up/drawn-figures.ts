import type { PrintedPicture } from "@/files/manuscript-docx";
import type { Manuscript } from "@/study/report/document/manuscript";
import type { DrawnChart } from "@/ui/charts/draw-chart";
import { pngOf, standalone } from "@/ui/charts/save-chart";
import { chartOf } from "./FigureView";

/** Width of a text column in inches, and how many dots an inch a picture has in print. */
const COLUMN_INCHES = 6.5;
const DOTS = 300;

/** The figures of a manuscript as SVG that looks the same everywhere, by the keys of their blocks. */
export async function drawnFigures({ blocks }: Manuscript): Promise<Map<string, DrawnChart>> {
  const drawn = blocks.flatMap((block) => (block.kind === "figure" && block.drawing ? [{ key: block.key, drawing: block.drawing }] : []));
  return new Map(await Promise.all(drawn.map(async ({ key, drawing }) => [key, await standalone(chartOf(drawing))] as const)));
}

/** The same with a picture behind each, for word processors that draw no SVG. */
export async function printedPictures(manuscript: Manuscript): Promise<Map<string, PrintedPicture>> {
  const figures = await drawnFigures(manuscript);
  const printed = [...figures].map(async ([key, drawn]) => {
    const png = await pngOf(drawn, (COLUMN_INCHES * DOTS) / drawn.width);
    return [key, { ...drawn, png: new Uint8Array(await png.arrayBuffer()) }] as const;
  });
  return new Map(await Promise.all(printed));
}
