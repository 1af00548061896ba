import { Fragment } from "react";

const SYMBOL = /\b(?:SD|SE|M|N|n|p|r|t|F|b|R)(?=(?:[ \u00a0][=<]|²|\())/g;

/** A sentence of a report with its statistical symbols in italics: p = .012, M = 3.20, R². Greek letters stay upright. */
export function StatText({ children: sentence }: { children: string }) {
  const children = sentence.replace(/ ([=<]) /g, "\u00a0$1\u00a0"); // a statistic does not break across lines
  const pieces: { text: string; symbol: boolean }[] = [];
  let at = 0;
  for (const match of children.matchAll(SYMBOL)) {
    pieces.push({ text: children.slice(at, match.index), symbol: false }, { text: match[0], symbol: true });
    at = match.index + match[0].length;
  }
  pieces.push({ text: children.slice(at), symbol: false });
  return pieces.map(({ text, symbol }, i) => (symbol ? <i key={i}>{text}</i> : <Fragment key={i}>{text}</Fragment>));
}
