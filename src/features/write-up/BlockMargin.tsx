"use client";

import Link from "next/link";
import { useStudy } from "@/features/study/study-context";
import type { Block, BlockContent } from "@/study/model/block";
import type { BlockStand } from "@/study/report/document/block-stand";
import type { Source } from "@/study/report/document/source";
import { formatCount } from "@/study/report/format-number";
import { LocalTime } from "@/ui/parts/LocalTime";
import { Note } from "@/ui/parts/Margin";
import { GROUND, placeOf, whatOf } from "./block-names";
import { TableSentence } from "./TableSentence";
import { TableWays } from "./TableWays";
import { FigureWays } from "./FigureWays";
import css from "./write-up.module.css";

/** So many changes are told one by one. */
const TOLD = 8;

/** What the margin says of the block that has the focus: what it rests on, what has changed, how it is told, and what can be done with it. */
export function BlockMargin(props: {
  block: Block;
  stand: BlockStand;
  name: string;
  source: Source;
  first: boolean;
  last: boolean;
  onChange: (block: Block, what: BlockContent) => void;
  onFresh: (block: Block, stand: BlockStand) => void;
  onAnew: ((block: Block) => void) | null;
  onMove: (by: -1 | 1) => void;
  onRemove: () => void;
  onWrite: () => void;
}) {
  const { block, stand, name, source, onChange } = props;
  const { study, store, title } = useStudy();
  const { what } = block;
  const place = placeOf(what, study);
  const of = whatOf(what, study, title);
  const written = what.kind === "prose" || what.kind === "paragraph" || what.kind === "heading";
  return (
    <>
      <Note heading={name.charAt(0).toUpperCase() + name.slice(1)}>
        {place !== null && (
          <p>
            Rests on{" "}
            <Link href={`/studies/${store.id}/${place}`}>{of !== "" ? of : ("of" in what && GROUND[what.of.kind]) || "the ladders"}</Link>
            {block.at !== "" && (
              <>
                , brought up to date <LocalTime at={block.at} />
              </>
            )}
            .
          </p>
        )}
        {what.kind === "table" && <TableSentence what={what} source={source} onChange={(to) => onChange(block, to)} />}
        <p className={css.acts}>
          {written && (
            <button type="button" className="link" onClick={props.onWrite}>
              Write in it
            </button>
          )}
          <button type="button" className="link" disabled={props.first} onClick={() => props.onMove(-1)}>
            Move up
          </button>
          <button type="button" className="link" disabled={props.last} onClick={() => props.onMove(1)}>
            Move down
          </button>
          <button type="button" className="link" onClick={props.onRemove}>
            Take out
          </button>
          {what.kind === "paragraph" && what.own !== null && props.onAnew && (
            <button type="button" className="link" onClick={() => props.onAnew!(block)}>
              Compose it anew
            </button>
          )}
        </p>
      </Note>
      {stand.state === "gone" && (
        <Note heading="No longer there">
          <p>What it tells of was taken out of the study, or cannot be worked out any more. It keeps what it said.</p>
        </Note>
      )}
      {stand.state === "changed" && (
        <Note heading="Out of date">
          {stand.wording.length > 0 && (
            <>
              <p>
                <b>Its words may be wrong now.</b> They stand around sentences that read otherwise today:
              </p>
              <ul data-testid="wording">
                {stand.wording.map(({ was, is }, k) => (
                  <li key={k}>
                    {was !== "" && <>was “{was}” </>}
                    {is === "" ? "and is not said any more" : <>now “{is}”</>}
                  </li>
                ))}
              </ul>
            </>
          )}
          {stand.changes.length > 0 && (
            <ul data-testid="changes">
              {stand.changes.slice(0, TOLD).map(({ where, from, to }, k) => (
                <li key={k}>
                  {where !== "" && `${where}: `}
                  {from === "" ? to : to === "" ? `${from}, gone` : `${from} → ${to}`}
                </li>
              ))}
              {stand.changes.length > TOLD && <li>and {formatCount(stand.changes.length - TOLD)} more</li>}
            </ul>
          )}
          <p>
            <button type="button" className="link" onClick={() => props.onFresh(block, stand)}>
              Bring up to date
            </button>
          </p>
        </Note>
      )}
      {(what.kind === "table" || what.kind === "figure") && (
        <Note heading="A note of your own">
          <textarea
            key={block.id}
            className={css.ownNote}
            aria-label="A note of your own, below it"
            defaultValue={what.note}
            rows={2}
            onBlur={(event) => event.target.value.trim() !== what.note && onChange(block, { ...what, note: event.target.value.trim() })}
          />
        </Note>
      )}
      {what.kind === "table" && what.shown && <TableWays what={what} name={name} />}
      {what.kind === "figure" && <FigureWays what={what} name={name} source={source} />}
    </>
  );
}
