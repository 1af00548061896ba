/** Hands a text to the browser as a file to save. */
export function saveFile(name: string, type: string, text: string): void {
  saveBlob(name, new Blob([text], { type: `${type};charset=utf-8` }));
}

/** The same with bytes of any kind. */
export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A file name made from a title: letters and digits of any script, hyphens between. */
export function fileName(title: string, ending: string): string {
  return `${
    title
      .trim()
      .replace(/[^\p{L}\p{N}]+/gu, "-")
      .replace(/^-+|-+$/g, "")
      .toLowerCase() || "table"
  }.${ending}`;
}
