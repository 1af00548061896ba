import { SaxesParser } from "saxes";
import { Variable, type VariableKind } from "@/study/model/variable";
import type { CodebookReading } from "./codebook-table";

// The codebook as DDI Codebook 2.5, the archives' XML. Only what describes variables is written and read.

const NAMESPACE = "ddi:codebook:2_5";
const escape = (text: string) =>
  text
    .replace(/[&<>"]/g, (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[sign]!)
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, " ");

/** Measurement as DDI names it, with our own word beside it. */
const MEASURES: Record<VariableKind, { nature: string; type: "numeric" | "character" }> = {
  item: { nature: "ordinal", type: "numeric" },
  number: { nature: "ratio", type: "numeric" },
  category: { nature: "nominal", type: "character" },
  date: { nature: "other", type: "character" },
  text: { nature: "other", type: "character" },
  code: { nature: "nominal", type: "character" },
};

/** @param study title, and the number of respondents */
export function ddiCodebook(study: { title: string; rows: number }, codebook: readonly Variable[]): string {
  const variables = codebook.map((v, i) => {
    const { nature, type } = MEASURES[v.kind];
    const range = v.range ? `\n      <valrng><range min="${v.range.low}" max="${v.range.high}"/></valrng>` : "";
    const gone = v.missing.filter((code) => code !== "");
    const invalid = gone.length > 0 ? `\n      <invalrng>${gone.map((code) => `<item VALUE="${escape(code)}"/>`).join("")}</invalrng>` : "";
    const labelled = new Set(v.levels.map((l) => l.value));
    const categories = [
      ...v.levels.map((l) => ({ ...l, missing: gone.includes(l.value) })),
      ...gone.filter((code) => !labelled.has(code)).map((value) => ({ value, label: "", missing: true })),
    ].map(
      ({ value, label, missing }) =>
        `\n      <catgry${missing ? ' missing="Y"' : ""}><catValu>${escape(value)}</catValu>${label === "" ? "" : `<labl>${escape(label)}</labl>`}</catgry>`,
    );
    const unit = v.unit === "" ? "" : ` measUnit="${escape(v.unit)}"`;
    return `    <var ID="V${i + 1}" name="${escape(v.name)}" nature="${nature}"${unit}>
      <labl level="variable">${escape(v.label)}</labl>${v.short === "" ? "" : `\n      <labl level="short">${escape(v.short)}</labl>`}${v.question === "" ? "" : `\n      <qstn><preQTxt>${escape(v.question)}</preQTxt></qstn>`}${range}${invalid}${categories.join("")}
      <varFormat type="${type}"/>
      <notes type="beta-step-kind">${v.kind}</notes>${v.note === "" ? "" : `\n      <notes>${escape(v.note)}</notes>`}
    </var>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>
<codeBook xmlns="${NAMESPACE}" version="2.5">
  <stdyDscr><citation><titlStmt><titl>${escape(study.title)}</titl></titlStmt></citation></stdyDscr>
  <fileDscr ID="F1"><fileTxt><dimensns><caseQnty>${study.rows}</caseQnty><varQnty>${codebook.length}</varQnty></dimensns></fileTxt></fileDscr>
  <dataDscr>
${variables.join("\n")}
  </dataDscr>
</codeBook>
`;
}

interface Read {
  name: string;
  label: string;
  question: string;
  short: string;
  nature: string;
  type: string;
  unit: string;
  kind: string;
  notes: string[];
  low: number | null;
  high: number | null;
  missing: string[];
  levels: { value: string; label: string; missing: boolean }[];
}

/** Reads a DDI codebook on the variables a study has. What it does not say stays as it is. */
export function readDdiCodebook(xml: string, codebook: readonly Variable[]): CodebookReading {
  const reading: CodebookReading = { variables: [], unknown: [], faults: [], ignored: [] };
  let found: Read[];
  try {
    found = readVariables(xml);
  } catch {
    return { ...reading, faults: ["This is not well-formed XML; nothing was read from it."] };
  }
  if (found.length === 0) return { ...reading, faults: ["This XML describes no variables; a DDI codebook has them under dataDscr."] };
  const known = new Map(codebook.map((v) => [v.name, v]));
  for (const read of found) {
    const variable = known.get(read.name);
    if (!variable) {
      reading.unknown.push(read.name);
      continue;
    }
    const levels = read.levels.filter((l) => !l.missing);
    const missing = [...new Set([...read.missing, ...read.levels.filter((l) => l.missing).map((l) => l.value)])];
    const next = Variable.safeParse({
      ...variable,
      label: read.label || variable.label,
      question: read.question || variable.question,
      short: read.short || variable.short,
      unit: read.unit || variable.unit,
      note: read.notes.join("\n") || variable.note,
      kind: kindOf(read, levels.length > 0) ?? variable.kind,
      range: read.low !== null && read.high !== null ? { low: read.low, high: read.high } : variable.range,
      missing: missing.length > 0 ? missing : variable.missing,
      levels: levels.length > 0 ? levels.map(({ value, label }) => ({ value, label })) : variable.levels,
    });
    if (next.success) reading.variables.push(next.data);
    else reading.faults.push(`${read.name}: ${next.error.issues[0]!.message}`);
  }
  return reading;
}

function kindOf(read: Read, labelled: boolean): VariableKind | null {
  if (Object.hasOwn(MEASURES, read.kind)) return read.kind as VariableKind;
  if (read.nature === "nominal") return labelled ? "category" : null;
  if (read.type === "numeric" && (read.nature === "ratio" || read.nature === "interval")) return "number";
  return null;
}

function readVariables(xml: string): Read[] {
  const found: Read[] = [];
  const path: string[] = [];
  let current: Read | null = null;
  let attributes: Record<string, string> = {};
  let text = "";
  const parser = new SaxesParser({ xmlns: false });
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("doctype", () => {
    throw new Error("a document type");
  });
  parser.on("opentag", (tag) => {
    // prefixes differ between archives; the names do not
    const name = tag.name.replace(/^.*:/, "");
    path.push(name);
    attributes = tag.attributes as Record<string, string>;
    text = "";
    if (name === "var")
      current = {
        name: (attributes["name"] ?? "").trim(),
        label: "",
        question: "",
        short: "",
        nature: attributes["nature"] ?? "",
        type: "",
        unit: attributes["measUnit"] ?? "",
        kind: "",
        notes: [],
        low: null,
        high: null,
        missing: [],
        levels: [],
      };
    if (!current) return;
    if (name === "catgry") current.levels.push({ value: "", label: "", missing: attributes["missing"] === "Y" });
    if (name === "varFormat") current.type = attributes["type"] ?? "";
    if (name === "range" && path.includes("valrng")) {
      current.low = finite(attributes["min"]);
      current.high = finite(attributes["max"]);
    }
    if (name === "item" && path.includes("invalrng") && attributes["VALUE"] !== undefined) current.missing.push(attributes["VALUE"]);
  });
  parser.on("text", (piece) => (text += piece));
  parser.on("cdata", (piece) => (text += piece));
  parser.on("closetag", (tag) => {
    const name = tag.name.replace(/^.*:/, "");
    path.pop();
    const words = text.replace(/\s+/g, " ").trim();
    const level = current?.levels.at(-1);
    if (current && name === "labl" && path.at(-1) === "var") {
      if (attributes["level"] === "short") current.short = words;
      else current.label = words;
    } else if (current && name === "preQTxt") current.question = words;
    else if (level && name === "catValu") level.value = words;
    else if (level && name === "labl" && path.at(-1) === "catgry") level.label = words;
    else if (current && name === "notes" && path.at(-1) === "var") {
      if (attributes["type"] === "beta-step-kind") current.kind = words;
      else if (words !== "") current.notes.push(words);
    } else if (name === "var" && current) {
      found.push(current);
      current = null;
    }
    text = "";
  });
  parser.write(xml.replace(/^\uFEFF/, "")).close();
  return found;
}

function finite(text: string | undefined): number | null {
  const number = Number(text);
  return text === undefined || text.trim() === "" || !Number.isFinite(number) ? null : number;
}
