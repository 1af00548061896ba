import { Fragment } from "react";
import type { Words } from "@/study/report/words";

/** Words of a report as they are set, statistical symbols in italics. */
export function Said({ children }: { children: Words }) {
  const pieces = typeof children === "string" ? [children] : children;
  // a statistic does not break across lines
  const bound = (text: string) => text.replace(/ ([=<]) /g, "\u00a0$1\u00a0");
  return pieces.map((piece, i) => {
    if (typeof piece === "string") return <Fragment key={i}>{bound(piece)}</Fragment>;
    if (piece.as === "reference")
      return (
        <a key={i} href={`#${piece.to}`}>
          {piece.text.replace(/ /g, "\u00a0")}
        </a>
      );
    return piece.as === "italic" ? <i key={i}>{piece.text}</i> : <sup key={i}>{piece.text}</sup>;
  });
}
