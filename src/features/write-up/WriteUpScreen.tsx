"use client";

import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useReplicates } from "@/features/study/use-replicates";
import type { Block, BlockContent } from "@/study/model/block";
import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import { begun, filled, notInText, offers, together } from "@/study/report/document/begin";
import { type BlockStand, Standing } from "@/study/report/document/block-stand";
import { FIGURES } from "@/study/report/document/figures";
import { liveNumbers } from "@/study/report/document/live-numbers";
import { manuscriptOf, numbering } from "@/study/report/document/manuscript";
import { counted } from "@/study/report/format-number";
import { listCarried } from "@/ui/parts/carried";
import { Margin, Note } from "@/ui/parts/Margin";
import page from "@/ui/parts/page.module.css";
import { AddHere, type Addable } from "./AddHere";
import { addBlock, changeBlock, isQuote, keepBegun, moveBlock } from "./block-edits";
import { BlockMargin } from "./BlockMargin";
import { blockNames } from "./block-names";
import { BlockView } from "./BlockView";
import { DocumentsOut } from "./DocumentsOut";
import type { Quotable } from "./ProseEditor";
import { oneFurther } from "./one-further";
import { StudyFileOut } from "./StudyFileOut";
import { type DrawnKind, useSource, withDrawn } from "./use-source";
import css from "./write-up.module.css";

const now = () => new Date().toISOString();
const WAITING: BlockStand = { state: "waiting" };

/** The article of a study: blocks in order, composed at first from what the study holds, then the person's. What a block shows stays until it is brought up to date. */
export function WriteUpScreen() {
  const { study, store, title, dataset } = useStudy();
  const [replicates, setReplicates] = useState<ReadonlyMap<string, ReplicateIntervals | null>>(new Map());
  const { source, waiting, drawing } = useSource(replicates);
  const kept = study.blocks;
  // what was quoted before the text was composed stands at its end
  const composed = kept.some((block) => !isQuote(block));
  const fresh = useMemo(() => (composed ? [] : begun(source)), [composed, source]);
  const blocks = useMemo(() => (composed ? kept : [...fresh, ...kept]), [composed, kept, fresh]);
  const [focus, setFocus] = useState<string | null>(null);
  const [writing, setWriting] = useState<string | null>(null);
  const tried = useRef(false);
  const whole = waiting === 0;
  const worthKeeping = fresh.some(({ what }) => what.kind === "table");
  useEffect(() => {
    // once a visit: who takes it back wants it so
    if (composed || !whole || !worthKeeping || tried.current) return;
    tried.current = true;
    store.edit(...keepBegun(begun(source, now()), kept));
  }, [composed, whole, worthKeeping, source, kept, store]);
  // a copy without respondents has nothing to be held against
  const shared = composed && dataset.rows === 0;
  const standing = useMemo(() => new Standing(source, !whole), [source, whole]);
  // held against the study once, when all of it is there, and not with each result that comes
  const stands = useMemo(
    () => new Map(whole && !shared ? kept.map((block) => [block.id, standing.of(block)]) : []),
    [whole, shared, kept, standing],
  );
  const numberOf = useMemo(() => numbering(blocks), [blocks]);
  const standOf = (block: Block): BlockStand => stands.get(block.id) ?? WAITING;
  // what is done later is done with what is there then; blocks are not drawn anew with each result
  const latest = useRef({ source, standing, numberOf, kept });
  useEffect(() => {
    latest.current = { source, standing, numberOf, kept };
  });
  const changed = composed ? kept.filter((block) => standOf(block).state === "changed") : [];
  const change = useCallback(
    (block: Block, what: BlockContent) => {
      // another option, or another outcome: what it then shows is worked out with it
      const shows = what.kind === "table" ? filled(what, latest.current.source) : what;
      store.edit(changeBlock(block, shows ?? what, what.kind === "table" ? now() : block.at));
    },
    [store],
  );
  const bring = (all: readonly Block[]) => {
    const edits = all.flatMap((block) => {
      const stand = standOf(block);
      return stand.state === "changed" ? [changeBlock(block, stand.fresh, now())] : [];
    });
    if (edits.length > 0) store.edit(...edits);
  };
  const add = useCallback(
    (place: number, what: BlockContent) => {
      const { id, edit } = addBlock(
        store.snapshot().study.blocks,
        place,
        filled(what, latest.current.source) ?? what,
        "of" in what ? now() : "",
      );
      if (!store.edit(edit)) return;
      setFocus(id);
      if (what.kind === "heading" || what.kind === "prose") setWriting(id);
    },
    [store],
  );
  const addable = useCallback(
    (): Addable[] => [
      { words: "text of your own", what: { kind: "prose", text: [] } },
      { words: "a heading", what: { kind: "heading", level: 3, text: "" } },
      { words: "a heading of a part", what: { kind: "heading", level: 2, text: "" } },
      ...offers(latest.current.source),
      ...pairs(latest.current.source.study.ladders.filter((l) => l.outcome !== null)).map(([a, b]) => ({
        words: `the table of ${a.name} and ${b.name} together`,
        what: together([a.id, b.id]),
      })),
    ],
    [],
  );
  const quotable = useCallback(
    (): Quotable[] => [
      ...liveNumbers(latest.current.source),
      ...latest.current.kept.flatMap(({ id }) => {
        const found = latest.current.numberOf(id);
        return found?.id === id ? [{ to: id, name: found.words, words: found.words }] : [];
      }),
    ],
    [],
  );
  const move = (from: number, to: number) => {
    const edits = moveBlock(kept, from, to);
    if (edits.length > 0) store.edit(...edits);
  };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: oneFurther }),
  );
  const figures = useMemo(
    () =>
      new Map(
        blocks.flatMap(({ id, what }) => (what.kind === "figure" ? [[id, FIGURES[what.of.kind].draw(what.of, source)] as const] : [])),
      ),
    [blocks, source],
  );
  const at = kept.findIndex(({ id }) => id === focus);
  const focused = kept[at];
  const missing = composed && whole && !shared ? notInText(source, kept) : [];
  const names = useMemo(() => blockNames(blocks, study, numberOf, title), [blocks, study, numberOf, title]);
  const proseOf = useCallback<Parameters<typeof BlockView>[0]["proseOf"]>((what) => latest.current.standing.prose(what), []);
  const end = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) move(kept.findIndex((b) => b.id === active.id), kept.findIndex((b) => b.id === over.id)); // prettier-ignore
  };
  return (
    <div className={page.page}>
      {drawing.map(({ kind, object, key }) => (
        <Drawn key={key} kind={kind} object={object} onDrawn={(found) => setReplicates((was) => withDrawn(was, key, found))} />
      ))}
      <main className={page.sheet} aria-busy={!whole}>
        <p className={css.ways}>
          <span role="status" data-testid="write-up-state">
            {shared
              ? "Without respondents: every block shows what it was shared with."
              : !whole
                ? `Working out ${counted(waiting, "result")} …`
                : changed.length > 0
                  ? `${counted(changed.length, "block is", "blocks are")} out of date.`
                  : "Every number is as it stands now."}
          </span>
          {whole && changed.length > 0 && (
            <button type="button" className="link" onClick={() => bring(changed)}>
              Bring all up to date
            </button>
          )}
        </p>
        <DocumentsOut manuscript={() => manuscriptOf(study.name, blocks, source)} ready={whole || composed} stale={changed.length} />
        <StudyFileOut source={source} ready={whole} />
        <article className={css.paper} aria-label="Manuscript">
          <h1>{study.name}</h1>
          <DndContext
            id="write-up"
            sensors={sensors}
            collisionDetection={closestCenter}
            accessibility={listCarried(
              "block",
              blocks.map(({ id }) => id),
              (id) => names.get(String(id)) ?? "",
            )}
            onDragEnd={end}
          >
            <SortableContext items={blocks.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
              {composed && <AddHere place={0} addable={addable} onAdd={add} />}
              {blocks.map((block, place) => (
                <div key={block.id}>
                  <BlockView
                    block={block}
                    stand={standOf(block)}
                    name={names.get(block.id)!}
                    focused={focus === block.id}
                    writing={writing === block.id}
                    open={composed}
                    figure={figures.get(block.id) ?? null}
                    numberOf={numberOf}
                    quotable={quotable}
                    onFocus={setFocus}
                    onWrite={setWriting}
                    onChange={change}
                    proseOf={proseOf}
                  />
                  {composed && <AddHere place={place + 1} addable={addable} onAdd={add} />}
                </div>
              ))}
            </SortableContext>
          </DndContext>
        </article>
        {missing.length > 0 && (
          <section className={css.missing} aria-label="Not in the text">
            <b>In the study, and not in the text:</b>{" "}
            {missing.map(({ words, what }, k) => (
              <button key={k} type="button" className="link" onClick={() => add(beforeReferences(kept), what)}>
                {words}
              </button>
            ))}
          </section>
        )}
      </main>
      <Margin>
        {focused ? (
          <BlockMargin
            key={focused.id}
            block={focused}
            stand={standOf(focused)}
            name={names.get(focused.id)!}
            source={source}
            first={at === 0}
            last={at === kept.length - 1}
            onChange={change}
            onFresh={(block) => bring([block])}
            onAnew={(block) => {
              const anew = block.what.kind === "paragraph" ? standing.anew(block.what) : null;
              if (anew) store.edit(changeBlock(block, anew, now()));
            }}
            onMove={(by) => move(at, at + by)}
            onRemove={() => {
              setFocus(null);
              store.edit({ subject: "block", id: focused.id, to: null });
            }}
            onWrite={() => setWriting(focused.id)}
          />
        ) : (
          <Note heading="How it is composed">
            <p>
              From what the study holds: who took part, each scale, how it was analysed, the first look, every ladder with its probes, and
              the hypotheses. It is yours: choose a block to see what it rests on, to write in it, to move it or take it out.
            </p>
            <p>A + between two blocks adds a heading, a text, a table or a figure. While you write, # puts a number in by its name.</p>
            <p>When results change, a rust rule stands beside each block that shows others, and says what has changed.</p>
          </Note>
        )}
      </Margin>
    </div>
  );
}

/** Two of them each, so many that a list can still be read. */
function pairs<T>(all: readonly T[]): [T, T][] {
  return all.flatMap((a, i) => all.slice(i + 1).map((b): [T, T] => [a, b])).slice(0, 30);
}

/** Before the list of references with its heading, or at the end. */
function beforeReferences(blocks: readonly Block[]): number {
  const at = blocks.findIndex(({ what }) => what.kind === "paragraph" && what.of.kind === "references");
  if (at < 0) return blocks.length;
  return at > 0 && blocks[at - 1]!.what.kind === "heading" ? at - 1 : at;
}

/** Intervals of something that takes them from replicates. */
function Drawn({
  kind,
  object,
  onDrawn,
}: {
  kind: DrawnKind;
  object: unknown;
  onDrawn: (found: ReplicateIntervals | null | undefined) => void;
}) {
  const { intervals, computing } = useReplicates(kind, object as never, null, true);
  const found = computing ? undefined : intervals;
  // told once for each set: the page above holds those of all
  useEffect(() => onDrawn(found), [found]); // eslint-disable-line react-hooks/exhaustive-deps
  return null;
}
