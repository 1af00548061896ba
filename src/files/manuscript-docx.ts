import {
  AlignmentType,
  Bookmark,
  BorderStyle,
  Document,
  Footer,
  HeadingLevel,
  ImageRun,
  Packer,
  PageNumber,
  Paragraph,
  type ParagraphChild,
  Table,
  TableCell,
  TableRow,
  TextRun,
  VerticalAlignTable,
  WidthType,
  XmlAttributeComponent,
  XmlComponent,
} from "docx";
import type { Manuscript, PrintedBlock } from "@/study/report/document/manuscript";
import type { PrintTable } from "@/study/report/print-table";
import { plain, runsOf, unbroken, type Words } from "@/study/report/words";
import { alternativeText } from "./manuscript-html";

/** Paper that a document is set on, in twentieths of a point. */
export const PAGES = {
  A4: { width: 11906, height: 16838 },
  Letter: { width: 12240, height: 15840 },
} as const;
export type PageSize = keyof typeof PAGES;

export interface DocxOptions {
  page: PageSize;
  /** What spelling is checked against: `en-GB`. */
  language: string;
}

/** A figure as a word processor shows it, and what stands for it where that cannot be shown. */
export interface PrintedPicture {
  svg: string;
  png: Uint8Array;
  /** In units of the picture. */
  width: number;
  height: number;
}

const MARGIN = 1440;
const FONT = "Times New Roman";
/** Half points. */
const SIZE = 24;
/** Line spacing of text: double. */
const DOUBLE = 480;
const INCH_PX = 96;

/** A name that Word takes for a bookmark: letters, digits and lines below, at most forty. */
const bookmark = (key: string) => `b_${key.replace(/[^A-Za-z0-9]/g, "_")}`.slice(0, 40);

class FieldMark extends XmlComponent {
  constructor(kind: "begin" | "separate" | "end") {
    super("w:fldChar");
    this.root.push(new FieldKind({ kind }));
  }
}
class FieldKind extends XmlAttributeComponent<{ kind: string }> {
  protected override readonly xmlKeys = { kind: "w:fldCharType" };
}
class Instruction extends XmlComponent {
  constructor(text: string) {
    super("w:instrText");
    this.root.push(new Preserved({ space: "preserve" }), text);
  }
}
class Preserved extends XmlAttributeComponent<{ space: string }> {
  protected override readonly xmlKeys = { space: "xml:space" };
}

/** A field with the text it has now. In its long form: readers that know no fields then have the text at least. */
function field(instruction: string, text: string, how: { size?: number; bold?: boolean } = {}): TextRun[] {
  const run = (...children: XmlComponent[]) => new TextRun({ ...how, children: children as unknown as string[] });
  return [
    run(new FieldMark("begin")),
    run(new Instruction(` ${instruction} `)),
    run(new FieldMark("separate")),
    new TextRun({ ...how, text }),
    run(new FieldMark("end")),
  ];
}

/** Words as runs, their looks kept; what leads to a table or figure is a field that follows it. @param italic true in a title, where symbols stand upright */
function runsFor(words: Words, how: { size?: number; bold?: boolean; italic?: boolean } = {}): ParagraphChild[] {
  const { size, bold, italic = false } = how;
  return runsOf(words).flatMap((run) => {
    if (run.as === "reference") return field(`REF ${bookmark(run.to)} \\h`, run.text, size === undefined ? {} : { size });
    return new TextRun({
      text: unbroken(run.text),
      ...(size === undefined ? {} : { size }),
      ...(bold ? { bold } : {}),
      ...((run.as === "italic") === italic ? {} : { italics: true }),
      ...(run.as === "superscript" ? { superScript: true } : {}),
    });
  });
}

/** `Table 2`, whose number counts itself and which references lead to. */
function caption(kind: "Table" | "Figure", number: number, key: string): Paragraph {
  const named = new Bookmark({ id: bookmark(key), children: [new TextRun({ text: `${kind} `, bold: true }), ...field(`SEQ ${kind} \\* ARABIC`, String(number), { bold: true })] }); // prettier-ignore
  return new Paragraph({ style: "Caption", keepNext: true, spacing: { before: 360, after: 60 }, children: [named] });
}

const NONE = { style: BorderStyle.NONE, size: 0, color: "auto" } as const;
const RULE = { style: BorderStyle.SINGLE, size: 8, color: "000000" } as const;
const FINE = { style: BorderStyle.SINGLE, size: 4, color: "000000" } as const;

interface Cell {
  words: Words;
  columns?: number;
  left?: boolean;
  bottom?: boolean;
}

/** A row of a table without lines of its own, but for those asked for. */
function rowOf(cells: readonly Cell[], size: number, lines: { top?: boolean; bottom?: boolean; head?: boolean } = {}): TableRow {
  return new TableRow({
    ...(lines.head ? { tableHeader: true } : {}),
    cantSplit: true,
    children: cells.map(({ words, columns, left, bottom }) => {
      const alignment = left ? AlignmentType.LEFT : columns ? AlignmentType.CENTER : AlignmentType.RIGHT;
      return new TableCell({
        ...(columns ? { columnSpan: columns } : {}),
        borders: {
          left: NONE,
          right: NONE,
          top: lines.top ? RULE : NONE,
          bottom: lines.bottom ? (lines.head ? FINE : RULE) : bottom ? FINE : NONE,
        },
        margins: { left: 60, right: 60, top: 30, bottom: 30 },
        verticalAlign: VerticalAlignTable.BOTTOM,
        children: [new Paragraph({ alignment, spacing: { line: 240 }, keepNext: true, children: runsFor(words, { size }) })],
      });
    }),
  });
}

/** Widths of columns by what is the longest in them, together as wide as the text. */
function widths(table: PrintTable, whole: number): number[] {
  const longest = table.head.map((head, i) => {
    const cells = table.sections.flatMap(({ rows }) => rows.map((row) => plain(row[i] ?? "").length));
    return Math.min(i === 0 ? 34 : 40, Math.max(plain(head).length, ...cells, 6)) + 1;
  });
  const sum = longest.reduce((a, b) => a + b, 0);
  return longest.map((length) => Math.floor((whole * length) / sum));
}

/** A column of words stands at the left, one of numbers at the right. */
const isWords = (table: PrintTable, i: number) => i === 0 || table.sections.some(({ rows }) => rows.some((row) => plain(row[i] ?? "").replace(/[^\p{L}]/gu, "").length > 12)); // prettier-ignore

/** A real table with three rules, its headings repeated on every page. */
function tableOf(table: PrintTable, whole: number): Table {
  const columns = table.head.length;
  const size = columns > 9 ? 16 : columns > 7 ? 18 : 20;
  const own = widths(table, whole);
  const over = table.over ? [rowOf(table.over.map(({ words, columns: span }): Cell => ({ words, columns: span, bottom: words !== "" })), size, { top: true, head: true })] : []; // prettier-ignore
  const left = table.head.map((_, i) => isWords(table, i));
  const head = rowOf(table.head.map((words, i): Cell => ({ words, left: left[i]! })), size, { top: over.length === 0, bottom: true, head: true }); // prettier-ignore
  const body = table.sections.flatMap(({ heading, rows }) => [
    ...(heading === "" ? [] : [{ cells: [{ words: heading, columns, left: true }] as Cell[] }]),
    ...rows.map((row) => ({ cells: row.map((words, i): Cell => ({ words, left: left[i]! })) })),
  ]);
  return new Table({
    width: { size: own.reduce((a, b) => a + b, 0), type: WidthType.DXA },
    columnWidths: own,
    borders: { top: NONE, bottom: NONE, left: NONE, right: NONE, insideHorizontal: NONE, insideVertical: NONE },
    rows: [...over, head, ...body.map(({ cells }, k) => rowOf(cells, size, { bottom: k === body.length - 1 }))],
  });
}

const noteOf = (words: Words) =>
  new Paragraph({ spacing: { before: 80, after: 360, line: 240 }, children: [new TextRun({ text: "Note. ", italics: true, size: 20 }), ...runsFor(words, { size: 20 })] }); // prettier-ignore

function blockOf(block: PrintedBlock, figures: ReadonlyMap<string, PrintedPicture>, whole: number): (Paragraph | Table)[] {
  switch (block.kind) {
    case "heading":
      return [
        new Paragraph({
          heading: block.level === 2 ? HeadingLevel.HEADING_1 : HeadingLevel.HEADING_2,
          alignment: block.level === 2 ? AlignmentType.CENTER : AlignmentType.LEFT,
          children: [new TextRun(block.text)],
        }),
      ];
    case "paragraph": {
      const indent = block.hanging ? { left: 720, hanging: 720 } : { firstLine: 720 };
      return [new Paragraph({ spacing: { line: DOUBLE }, indent, children: block.sentences.flatMap((sentence, k) => [...(k > 0 ? [new TextRun(" ")] : []), ...runsFor(sentence)]) })]; // prettier-ignore
    }
    case "table":
      return [
        caption("Table", block.number, block.key),
        new Paragraph({ keepNext: true, spacing: { after: 120, line: 240 }, children: runsFor(block.table.title, { italic: true }) }),
        tableOf(block.table, whole),
        noteOf(block.table.note),
      ];
    case "figure": {
      const picture = figures.get(block.key);
      const scale = picture ? whole / 1440 / (picture.width / INCH_PX) : 1;
      return [
        caption("Figure", block.number, block.key),
        new Paragraph({ keepNext: true, spacing: { after: 120, line: 240 }, children: runsFor(block.title, { italic: true }) }),
        new Paragraph({
          keepNext: true,
          children: picture
            ? [
                new ImageRun({
                  type: "svg",
                  data: new TextEncoder().encode(picture.svg),
                  fallback: { type: "png", data: picture.png },
                  transformation: { width: Math.round(picture.width * Math.min(1.4, scale)), height: Math.round(picture.height * Math.min(1.4, scale)) }, // prettier-ignore
                  altText: { name: `Figure ${block.number}`, title: plain(block.title), description: alternativeText(block) },
                }),
              ]
            : [new TextRun(block.alt)],
        }),
        noteOf(block.note),
      ];
    }
  }
}

/**
 * A manuscript as a word processor takes it: real tables with three rules and repeated headings, numbers and references that count themselves, figures as SVG with a
 * picture of 300 dots an inch behind, alternative texts.
 */
export function manuscriptDocument(
  { title, blocks }: Manuscript,
  figures: ReadonlyMap<string, PrintedPicture>,
  { page, language }: DocxOptions,
): Document {
  const { width, height } = PAGES[page];
  const whole = width - 2 * MARGIN;
  const text = { font: FONT, size: SIZE, language: { value: language } };
  const heading = {
    run: { ...text, bold: true, color: "000000" },
    paragraph: { spacing: { before: 240, after: 60, line: DOUBLE }, keepNext: true },
  };
  return new Document({
    title,
    creator: "",
    description: "",
    features: { updateFields: false },
    styles: {
      default: {
        document: { run: text },
        title: {
          run: { ...text, size: 28, bold: true },
          paragraph: { alignment: AlignmentType.CENTER, spacing: { after: 240, line: DOUBLE } },
        },
        heading1: heading,
        heading2: heading,
      },
      paragraphStyles: [
        { id: "Caption", name: "caption", basedOn: "Normal", next: "Normal", run: { ...text, bold: true }, quickFormat: true },
      ],
    },
    sections: [
      {
        properties: { page: { size: { width, height }, margin: { top: MARGIN, bottom: MARGIN, left: MARGIN, right: MARGIN } } },
        footers: { default: new Footer({ children: [new Paragraph({ alignment: AlignmentType.RIGHT, children: [new TextRun({ children: [PageNumber.CURRENT] })] })] }) }, // prettier-ignore
        children: [new Paragraph({ heading: HeadingLevel.TITLE, children: [new TextRun(title)] }), ...blocks.flatMap((block) => blockOf(block, figures, whole))], // prettier-ignore
      },
    ],
  });
}

/** The same as the bytes of a DOCX file. */
export async function manuscriptDocx(
  manuscript: Manuscript,
  figures: ReadonlyMap<string, PrintedPicture>,
  options: DocxOptions,
): Promise<Uint8Array> {
  const buffer = await Packer.toArrayBuffer(manuscriptDocument(manuscript, figures, options));
  return new Uint8Array(buffer);
}
