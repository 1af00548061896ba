import { SaxesParser, type SaxesTagPlain } from "saxes";
import { ImportFaultError } from "./import-fault";

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
  const decoder = new TextDecoder();
  const feed = xmlReader(events, what);
  for await (const piece of bytes) {
    feed.write(decoder.decode(piece, { stream: true }));
    yield;
  }
  feed.write(decoder.decode());
  feed.end();
  yield;
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
  if (events.open) parser.on("opentag", (tag: SaxesTagPlain) => events.open!(tag.name, tag.attributes));
  if (events.close) parser.on("closetag", (tag) => events.close!(tag.name));
  if (events.text) {
    parser.on("text", events.text);
    parser.on("cdata", events.text);
  }
  return { write: (text) => void (text !== "" && parser.write(text)), end: () => void parser.close() };
}
