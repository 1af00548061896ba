import { SaxesParser, type SaxesTagPlain } from "saxes";
import { formatCount } from "@/study/report/format-number";
import { ImportFaultError } from "./import-fault";

/** Spreadsheets go ten deep; a table within a table within a table still is no questionnaire's. */
const MOST_DEEP = 1000;

/** What to do at each tag and text of an XML document. */
export interface XmlEvents {
  open?: (name: string, attributes: Record<string, string>) => void;
  close?: (name: string) => void;
  text?: (text: string) => void;
}

/**
 * Reads XML piece by piece. The caller looks after each piece whether what it collected can be handed on.
 * Entities beyond the five of XML are refused by the parser, so a document cannot blow itself up with them.
 * @param what the document, for the message
 * @throws ImportFaultError when it is not well-formed
 */
export async function* xmlEvents(bytes: AsyncIterable<Uint8Array>, events: XmlEvents, what: string): AsyncGenerator<void> {
  let decoder: TextDecoder | null = null;
  const feed = xmlReader(events, what);
  const decoded = (piece?: Uint8Array): string => {
    try {
      return piece ? decoder!.decode(piece, { stream: true }) : (decoder?.decode() ?? "");
    } catch {
      throw new ImportFaultError(
        "broken-letters",
        `${what} holds bytes that are no letters. The file is damaged: save it again and drop it here.`,
      );
    }
  };
  for await (const piece of bytes) {
    decoder ??= new TextDecoder(encodingBy(piece), { fatal: true });
    feed.write(decoded(piece));
    yield;
  }
  feed.write(decoded());
  feed.end();
  yield;
}

/** XML is UTF-8 unless a mark at its beginning says otherwise. */
function encodingBy([a, b]: Uint8Array): string {
  return a === 0xff && b === 0xfe ? "utf-16le" : a === 0xfe && b === 0xff ? "utf-16be" : "utf-8";
}

/** A tag without the prefix that its document gives it. */
export function localName(name: string): string {
  return name.slice(name.indexOf(":") + 1);
}

/** Reads a small XML document at once. @throws ImportFaultError */
export function readXml(text: string, events: XmlEvents, what: string): void {
  const feed = xmlReader(events, what);
  feed.write(text);
  feed.end();
}

function xmlReader(events: XmlEvents, what: string): { write: (text: string) => void; end: () => void } {
  const parser = new SaxesParser({ xmlns: false, position: true });
  const fault = () => {
    throw new ImportFaultError(
      "not-xml",
      `${what} is not well-formed XML (line ${parser.line}). The file is damaged, or is something else.`,
      parser.line,
    );
  };
  parser.on("error", fault);
  parser.on("doctype", fault); // a document type can only do harm here
  let depth = 0;
  parser.on("opentag", (tag: SaxesTagPlain) => {
    if (++depth > MOST_DEEP)
      throw new ImportFaultError(
        "too-deep",
        `${what} holds elements within elements, more than ${formatCount(MOST_DEEP)} deep. It is no table.`,
      );
    events.open?.(tag.name, tag.attributes);
  });
  parser.on("closetag", (tag) => {
    depth--;
    events.close?.(tag.name);
  });
  if (events.text) {
    parser.on("text", events.text);
    parser.on("cdata", events.text);
  }
  return { write: (text) => void (text !== "" && parser.write(text)), end: () => void parser.close() };
}
