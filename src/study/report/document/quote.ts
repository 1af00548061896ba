import { BlockContent } from "../../model/block";
import type { Study } from "../../model/study";
import type { Titles } from "../level-title";
import { filled } from "./begin";
import { liveNumbers } from "./live-numbers";
import { bareSource, type Source } from "./source";

/** A part of the write-up made from what was quoted on another page. @returns null where there is nothing to quote */
export function quoted(
  of: { paragraph: { kind: string; id: string } } | { number: string },
  part: Partial<Source> & { study: Study; title: Titles },
): BlockContent | null {
  const source = { ...bareSource(part.study, part.title), ...part };
  if ("paragraph" in of) {
    const { kind, id } = of.paragraph;
    return filled(BlockContent.parse({ kind: "paragraph", of: { kind, ids: id === "" ? [] : [id] } }), source);
  }
  const found = liveNumbers(source).find(({ key }) => key === of.number);
  if (!found) return null;
  const name = `${found.name.charAt(0).toUpperCase()}${found.name.slice(1)}: `;
  return BlockContent.parse({ kind: "prose", text: [[name, { as: "number", of: found.key, shown: found.words }, "."]] });
}
