import sans from "@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2";
import serif from "@fontsource-variable/source-serif-4/files/source-serif-4-latin-wght-normal.woff2";
import { preload } from "react-dom";

/** Sends for the two fonts of every page with the page itself: its first words then stand in them, and are not set twice. */
export function PreloadFonts() {
  for (const font of [sans, serif]) preload(font, { as: "font", type: "font/woff2", crossOrigin: "anonymous" });
  return null;
}
