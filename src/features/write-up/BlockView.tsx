"use client";

import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { memo, type ReactNode, useLayoutEffect, useRef, useState } from "react";
import type { Block, BlockContent, BlockOf } from "@/study/model/block";
import type { BlockStand } from "@/study/report/document/block-stand";
import type { Figure } from "@/study/report/document/figures";
import { type numbering, printedSentences } from "@/study/report/document/manuscript";
import type { PrintTable } from "@/study/report/print-table";
import { runsOf, type Words } from "@/study/report/words";
import { laterField, type Meanwhile } from "@/ui/parts/later";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { Said } from "@/ui/parts/Said";
import { chartOf } from "./FigureView";
import { Plain, wordsOf } from "./prose-doc";
import type { ProseEditorProps, Quotable } from "./ProseEditor";
import css from "./write-up.module.css";

const ProseEditor = laterField<ProseEditorProps, HTMLTextAreaElement>(() => import("./ProseEditor"), PlainEditor);
/** About so many letters stand in a line of the text. */
const LINE = 90;

export interface BlockProps {
  block: Block;
  stand: BlockStand;
  name: string;
  focused: boolean;
  writing: boolean;
  /** False while nothing is kept yet: then nothing can be changed. */
  open: boolean;
  /** What a figure draws now; null of every other block, and where it is not there. */
  figure: Figure | null;
  numberOf: ReturnType<typeof numbering>;
  quotable: () => readonly Quotable[];
  onFocus: (id: string) => void;
  onWrite: (id: string | null) => void;
  onChange: (block: Block, what: BlockContent) => void;
  proseOf: (what: BlockOf<"paragraph">) => BlockOf<"prose">["text"];
}

/** One part of the text, with the rule that says it is out of date and the handle it is moved by. */
export const BlockView = memo(function BlockView(props: BlockProps) {
  const { block, stand, name, focused, open } = props;
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: block.id,
    disabled: !open,
  });
  const stale = stand.state === "changed" || stand.state === "gone";
  const looks = [css.block, focused ? css.focused : "", stale ? css.stale : "", isDragging ? css.dragged : ""].join(" ");
  return (
    <section
      id={block.id}
      ref={setNodeRef}
      className={looks}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={`${name}${stand.state === "changed" ? ", out of date" : ""}`}
      data-state={stand.state}
      tabIndex={0}
      onFocus={() => props.onFocus(block.id)}
      onKeyDown={(event) => {
        if (event.target !== event.currentTarget || !open) return;
        if (event.key === "Enter") {
          event.preventDefault();
          props.onWrite(block.id);
        }
      }}
      onDoubleClick={() => open && props.onWrite(block.id)}
    >
      {open && (
        <button type="button" ref={setActivatorNodeRef} className={css.handle} {...attributes} {...listeners} aria-label={`Move ${name}`}>
          ⠿
        </button>
      )}
      <Shown {...props} />
    </section>
  );
});

function Shown(props: BlockProps): ReactNode {
  const { block, writing, numberOf } = props;
  const { what } = block;
  switch (what.kind) {
    case "heading":
      return <HeadingText {...props} what={what} />;
    case "prose":
    case "paragraph":
      if (writing) return <Writing {...props} what={what} />;
      return what.kind === "prose" ? <OwnText text={what.text} numberOf={numberOf} /> : <Composed what={what} numberOf={numberOf} />;
    case "table":
      return <TableText what={what} words={numberOf(block.id)?.words ?? "Table"} />;
    case "figure":
      return <FigureText what={what} words={numberOf(block.id)?.words ?? "Figure"} figure={props.figure} />;
  }
}

function HeadingText({ block, writing, what, onWrite, onChange }: BlockProps & { what: BlockOf<"heading"> }) {
  if (writing)
    return (
      <input
        className={css.headingField}
        aria-label="Heading"
        autoFocus
        defaultValue={what.text}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") onWrite(null);
        }}
        onBlur={(event) => {
          onWrite(null);
          if (event.target.value.trim() !== what.text) onChange(block, { ...what, text: event.target.value.trim() });
        }}
      />
    );
  const text = what.text === "" ? <span className="quiet">A heading without words</span> : what.text;
  return what.level === 2 ? <h2>{text}</h2> : <h3>{text}</h3>;
}

function Writing({
  block,
  what,
  quotable,
  numberOf,
  onWrite,
  onChange,
  proseOf,
}: BlockProps & { what: BlockOf<"prose"> | BlockOf<"paragraph"> }) {
  const prose = what.kind === "prose" ? what.text : proseOf(what);
  return (
    <ProseEditor
      label={what.kind === "prose" ? "Text of your own" : "Paragraph"}
      prose={prose}
      quotable={quotable()}
      numberOf={numberOf}
      onDone={(text) => {
        onWrite(null);
        if (JSON.stringify(text) === JSON.stringify(prose)) return;
        onChange(block, what.kind === "prose" ? { ...what, text } : { ...what, own: text });
      }}
    />
  );
}

/** Until the editor has come, the same text in plain letters. The field itself is handed on: a browser tells of its caret only after it has moved it. */
function PlainEditor({ label, prose, numberOf, onType, away, onDone }: ProseEditorProps & Meanwhile<HTMLTextAreaElement>) {
  const field = useRef<HTMLTextAreaElement>(null);
  const [plain] = useState(() => new Plain(prose, wordsOf(numberOf)));
  useLayoutEffect(() => {
    const now = field.current!;
    now.setSelectionRange(plain.letters.length, plain.letters.length);
    onType(now);
  }, []); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <>
      <textarea
        ref={field}
        className={css.meanwhile}
        aria-label={label}
        autoFocus
        rows={plain.letters.split("\n").length + Math.ceil(plain.letters.length / LINE)}
        defaultValue={plain.letters}
        onKeyDown={(event) => {
          if (event.key === "Escape" || (event.key === "Enter" && (event.ctrlKey || event.metaKey))) event.currentTarget.blur();
        }}
        onBlur={(event) => onDone(plain.changedTo(event.currentTarget.value))}
      />
      {away && (
        <p role="status" className={css.hint}>
          Beta Step does not answer, so this is written in plain letters: italics and numbers by # cannot be put in just now. Escape leaves
          it and keeps what is written.
        </p>
      )}
    </>
  );
}

/** A person's own text: numbers of the study have a hairline below. */
function OwnText({ text, numberOf }: { text: BlockOf<"prose">["text"]; numberOf: ReturnType<typeof numbering> }) {
  if (text.every((paragraph) => paragraph.length === 0))
    return <p className="quiet">Nothing written yet. Press Enter, or click twice, to write.</p>;
  return text.map((paragraph, k) => (
    <p key={k}>
      {paragraph.map((piece, i) => {
        if (typeof piece === "string") return <Said key={i}>{piece}</Said>;
        if (piece.as === "number")
          return (
            <span key={i} className={css.live} data-live={piece.of}>
              <Said>{piece.shown as Words}</Said>
            </span>
          );
        if (piece.as !== "reference") return <Said key={i}>{[piece]}</Said>;
        const found = numberOf(piece.to);
        return <Said key={i}>{found ? [{ text: found.words, as: "reference", to: found.id }] : "(a table that is not in the text)"}</Said>;
      })}
    </p>
  ));
}

function Composed({ what, numberOf }: { what: BlockOf<"paragraph">; numberOf: ReturnType<typeof numbering> }) {
  if (what.own !== null) return <OwnText text={what.own} numberOf={numberOf} />;
  const sentences = printedSentences((what.shown ?? []) as Words[], numberOf);
  if (what.of.kind === "references")
    return sentences.map((entry, k) => (
      <p key={k} className={css.entry}>
        <Said>{entry}</Said>
      </p>
    ));
  return (
    <p>
      {sentences.map((sentence, k) => (
        <span key={k}>
          <Said>{sentence}</Said>{" "}
        </span>
      ))}
    </p>
  );
}

function Caption({ words, title }: { words: string; title: Words }) {
  return (
    <p className={css.caption}>
      <b>{words}</b>
      <br />
      <i>
        {runsOf(title).map((run, i) =>
          run.as === "italic" ? (
            <span key={i} className={css.upright}>
              {run.text}
            </span>
          ) : (
            <span key={i}>{run.text}</span>
          ),
        )}
      </i>
    </p>
  );
}

const Below = ({ note, own }: { note: Words; own: string }) => (
  <p className={css.note}>
    <i>Note.</i> <Said>{note}</Said>
    {own !== "" && ` ${own}`}
  </p>
);

function TableText({ what, words }: { what: BlockOf<"table">; words: string }) {
  if (!what.shown) return null;
  const table = what.shown as PrintTable;
  return (
    <div className={css.table}>
      <Caption words={words} title={table.title} />
      <div className={css.scroll} tabIndex={0} role="group" aria-label={`${words}, numbers`}>
        <PrintedTable table={table} className={css.numbers} testId={words.toLowerCase().replace(" ", "-")} />
      </div>
      <Below note={table.note} own={what.note} />
    </div>
  );
}

function FigureText({ what, words, figure: now }: { what: BlockOf<"figure">; words: string; figure: Figure | null }) {
  if (!what.shown) return null;
  return (
    <figure className={css.figure}>
      <Caption words={words} title={what.shown.title as Words} />
      {now ? chartOf(now.drawing) : <p className="quiet">What it draws is not there. It showed: {what.shown.marks.join("; ")}.</p>}
      <Below note={what.shown.note as Words} own={what.note} />
    </figure>
  );
}
