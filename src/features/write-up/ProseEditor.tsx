"use client";

import { Extension, mergeAttributes, Node } from "@tiptap/core";
import Document from "@tiptap/extension-document";
import Italic from "@tiptap/extension-italic";
import Paragraph from "@tiptap/extension-paragraph";
import Superscript from "@tiptap/extension-superscript";
import Text from "@tiptap/extension-text";
import { UndoRedo } from "@tiptap/extensions";
import { AllSelection, Selection } from "@tiptap/pm/state";
import { EditorContent, useEditor } from "@tiptap/react";
import { Suggestion, type SuggestionProps } from "@tiptap/suggestion";
import { useLayoutEffect, useRef, useState, useSyncExternalStore } from "react";
import type { Prose } from "@/study/model/block";
import type { numbering } from "@/study/report/document/manuscript";
import { plain, runsOf, type Words } from "@/study/report/words";
import type { Typed } from "@/ui/parts/later";
import { Said } from "@/ui/parts/Said";
import { editorDocument, Plain, wordsOf, writtenProse } from "./prose-doc";
import css from "./write-up.module.css";

/** What # offers: a number of the study, or a table or figure of the text. */
export type Quotable = { key: string; name: string; words: Words } | { to: string; name: string; words: string };

const MOST = 12;

/** A number that is bound to the study: one letter to the editor, and nobody types into it. */
const Live = Node.create({
  name: "live",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({ of: { default: "" }, shown: { default: '""' } }),
  parseHTML: () => [
    { tag: "span[data-live]", getAttrs: (node) => ({ of: node.getAttribute("data-live"), shown: node.getAttribute("data-shown") }) },
  ],
  renderHTML: ({ node }) => {
    const shown = JSON.parse(node.attrs["shown"] as string) as Words;
    const pieces = runsOf(shown).map((run) =>
      run.as === "italic" ? ["i", {}, run.text] : run.as === "superscript" ? ["sup", {}, run.text] : run.text,
    );
    return [
      "span",
      mergeAttributes({ "data-live": node.attrs["of"] as string, "data-shown": node.attrs["shown"] as string, class: css.live }),
      ...pieces,
    ] as never;
  },
  renderText: ({ node }) => plain(JSON.parse(node.attrs["shown"] as string) as Words),
});

const Leading = Node.create({
  name: "leading",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({ to: { default: "" }, words: { default: "" } }),
  parseHTML: () => [
    { tag: "span[data-leading]", getAttrs: (node) => ({ to: node.getAttribute("data-leading"), words: node.textContent }) },
  ],
  renderHTML: ({ node }) => ["span", { "data-leading": node.attrs["to"] as string, class: css.live }, node.attrs["words"] as string],
  renderText: ({ node }) => node.attrs["words"] as string,
});

type Offered = SuggestionProps<Quotable, Quotable>;

/** What # offers at the moment, and which of it would be taken. */
class Offering {
  private now: { of: Offered; at: number } | null = null;
  private readonly listeners = new Set<() => void>();

  constructor(readonly quotable: readonly Quotable[]) {}

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = () => this.now;

  show(next: { of: Offered; at: number } | null): void {
    this.now = next;
    for (const listener of this.listeners) listener();
  }

  /** @returns true for a key that is the list's */
  key(key: string): boolean {
    const { now } = this;
    if (!now || now.of.items.length === 0) return false;
    if (key === "ArrowDown" || key === "ArrowUp") {
      const step = key === "ArrowDown" ? 1 : now.of.items.length - 1;
      this.show({ ...now, at: (now.at + step) % now.of.items.length });
      return true;
    }
    if (key !== "Enter" && key !== "Tab") return false;
    now.of.command(now.of.items[now.at]!);
    return true;
  }
}

const extensionsFor = (offering: Offering) => [
  Document,
  Paragraph,
  Text,
  Italic,
  Superscript,
  UndoRedo,
  Live,
  Leading,
  Extension.create({
    name: "quoting",
    addProseMirrorPlugins() {
      return [
        Suggestion<Quotable, Quotable>({
          editor: this.editor,
          char: "#",
          allowSpaces: true,
          allowedPrefixes: null,
          items: ({ query }) => found(offering.quotable, query),
          command: ({ editor, range, props: chosen }) => {
            const node =
              "key" in chosen
                ? { type: "live", attrs: { of: chosen.key, shown: JSON.stringify(chosen.words) } }
                : { type: "leading", attrs: { to: chosen.to, words: chosen.words } };
            editor.chain().focus().insertContentAt(range, node).run();
          },
          render: () => ({
            onStart: (of) => offering.show({ of, at: 0 }),
            onUpdate: (of) => offering.show({ of, at: 0 }),
            onExit: () => offering.show(null),
            onKeyDown: ({ event }) => offering.key(event.key),
          }),
        }),
      ];
    },
  }),
];

/** Which end of the text a key leads to when all of it is chosen. */
const END: Readonly<Record<string, "start" | "end">> = { ArrowLeft: "start", ArrowUp: "start", Home: "start", ArrowRight: "end", ArrowDown: "end", End: "end" }; // prettier-ignore

export interface ProseEditorProps {
  label: string;
  prose: Prose;
  quotable: readonly Quotable[];
  numberOf: ReturnType<typeof numbering>;
  /** Told once, when the writing is done: by leaving it, by Escape, or by Ctrl and Enter. */
  onDone: (prose: Prose) => void;
}

/** Prose that a person writes, with numbers of the study in it: # offers them by name. */
export default function ProseEditor(props: ProseEditorProps & Typed<HTMLTextAreaElement>) {
  const [offering] = useState(() => new Offering(props.quotable));
  const [extensions] = useState(() => extensionsFor(offering));
  const offered = useSyncExternalStore(offering.subscribe, offering.snapshot, () => null);
  const done = useRef(false);
  const reference = wordsOf(props.numberOf);
  /** What a person has written so far, where the field before this one was written in. */
  const [begun] = useState(() => (props.typed ? new Plain(props.prose, reference).changedTo(props.typed.value) : props.prose));
  const editor = useEditor({
    extensions,
    // it is never drawn on the server; in the same moment, since keys may follow at once
    immediatelyRender: true,
    content: editorDocument(begun, reference),
    editorProps: {
      attributes: { role: "textbox", "aria-multiline": "true", "aria-label": props.label, class: css.writing! },
      handleKeyDown: (view, event) => {
        const end = END[event.key];
        // the browser would tell of its new caret later: a letter typed until then would stand in place of the whole text
        if (end && view.state.selection instanceof AllSelection && !event.shiftKey && !event.altKey) {
          const { doc, tr } = view.state;
          view.dispatch(tr.setSelection(end === "start" ? Selection.atStart(doc) : Selection.atEnd(doc)).scrollIntoView());
          return true;
        }
        if (event.key === "Escape" && offering.snapshot() === null) return leave();
        if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) return leave();
        return false;
      },
    },
    onBlur: () => leave(),
  });
  // at once, and not in the next frame: a key that is pressed meanwhile would find the caret elsewhere
  useLayoutEffect(() => {
    if (!editor) return;
    const { typed } = props;
    const all = typed && typed.selectionStart === 0 && typed.selectionEnd === typed.value.length && typed.value !== "";
    if (all) editor.commands.selectAll();
    else if (typed) {
      const plain = new Plain(begun, reference);
      editor.commands.setTextSelection({ from: plain.place(typed.selectionStart), to: plain.place(typed.selectionEnd) });
    } else editor.commands.setTextSelection(editor.state.doc.content.size);
    editor.view.focus();
  }, [editor]); // eslint-disable-line react-hooks/exhaustive-deps
  /** Writing that is left is kept: undo takes it back. */
  const leave = (): boolean => {
    if (done.current || !editor) return true;
    done.current = true;
    props.onDone(writtenProse(editor.getJSON()));
    return true;
  };
  return (
    <div className={css.editor}>
      <EditorContent editor={editor} />
      {offered && (
        <ul className={css.offered} role="listbox" aria-label="Numbers of the study">
          {offered.of.items.map((one, i) => (
            <li
              key={"key" in one ? one.key : one.to}
              role="option"
              aria-selected={i === offered.at}
              onMouseDown={(event) => {
                event.preventDefault();
                offered.of.command(one);
              }}
            >
              <span>{one.name}</span>{" "}
              <b>
                <Said>{one.words}</Said>
              </b>
            </li>
          ))}
          {offered.of.items.length === 0 && <li className="quiet">No number of this study is called so.</li>}
        </ul>
      )}
      <p className={css.hint}>
        # puts a number of the study in by its name.{" "}
        <button
          type="button"
          className="link"
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => editor?.chain().focus().toggleItalic().run()}
        >
          Italic
        </button>{" "}
        · Escape leaves it and keeps what is written.
      </p>
    </div>
  );
}

/** Those whose name holds all the words that were typed. */
function found(all: readonly Quotable[], query: string): Quotable[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  return all.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word))).slice(0, MOST);
}
