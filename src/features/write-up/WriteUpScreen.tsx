"use client";

import { type ReactNode, useEffect, useState } from "react";
import { defaultLook } from "@/features/study/default-look";
import { useStudy } from "@/features/study/study-context";
import { useAsked, useResults } from "@/features/study/use-computed";
import { useReplicates } from "@/features/study/use-replicates";
import type { Ladder } from "@/study/model/ladder";
import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import { theoryOf } from "@/study/model/theory";
import { compose } from "@/study/report/document/compose";
import type { Block, Manuscript } from "@/study/report/document/manuscript";
import { counted } from "@/study/report/format-number";
import { Margin, Note } from "@/ui/parts/Margin";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { Said } from "@/ui/parts/Said";
import { fileName, saveFile } from "@/ui/parts/save-file";
import css from "./write-up.module.css";

/** The article of a study, composed from its results as they stand: nothing in it can be out of date. */
export function WriteUpScreen() {
  const { study, title } = useStudy();
  const { scales, ladders, hypotheses } = study;
  const theory = theoryOf(study.theories);
  const look = study.looks[0] ?? defaultLook(study);
  const measured = useResults("scale", scales, null);
  const climbed = useResults("ladder", ladders, null);
  const told = useAsked("theory", theory, { enabled: hypotheses.length > 0 });
  const looked = useAsked("first-look", look, { enabled: look.variables.length > 1 });
  // null: there are none, and none will come; without an entry they are still being drawn
  const [replicates, setReplicates] = useState<ReadonlyMap<string, ReplicateIntervals | null>>(new Map());
  const drawn = ladders.filter((l) => l.intervals.by !== "normal");
  const manuscript = compose({
    study,
    title,
    scales: measured,
    look: looked.result?.status === "looked" ? { look, found: looked.result } : null,
    ladders: climbed,
    replicates,
    stands: new Map((told.result?.stands ?? []).map((stand) => [stand.id, stand])),
  });
  const waiting = [
    scales.length - measured.size,
    ladders.length - climbed.size,
    told.computing ? 1 : 0,
    looked.computing ? 1 : 0,
    drawn.filter((l) => climbed.get(l.id)?.status === "fitted" && !replicates.has(l.id)).length,
  ].reduce((a, b) => a + b);
  const save = async (how: "html" | "md") => {
    const name = fileName(study.name, how);
    if (how === "html") saveFile(name, "text/html", (await import("@/files/manuscript-html")).manuscriptHtml(manuscript));
    else saveFile(name, "text/markdown", (await import("@/files/manuscript-markdown")).manuscriptMarkdown(manuscript));
  };
  return (
    <div className={page.page}>
      {drawn.map((ladder) => (
        <Drawn key={ladder.id} ladder={ladder} onDrawn={(found) => setReplicates((now) => withDrawn(now, ladder.id, found))} />
      ))}
      <main className={page.sheet} aria-busy={waiting > 0}>
        <p className={css.ways}>
          <span role="status" data-testid="write-up-state">
            {waiting > 0 ? `Working out ${counted(waiting, "result")} …` : "Every number is as it stands now."}
          </span>
          <button type="button" className="link" disabled={waiting > 0} onClick={() => void save("html")}>
            Save as HTML
          </button>
          <button type="button" className="link" disabled={waiting > 0} onClick={() => void save("md")}>
            Save as Markdown
          </button>
          <button type="button" className="link" disabled={waiting > 0} onClick={() => window.print()}>
            Print
          </button>
        </p>
        <Paper manuscript={manuscript} />
      </main>
      <Margin>
        <Note heading="How it is composed">
          <p>
            From what the study holds: who took part, each scale, how it was analysed, the first look, every ladder in its order, and the
            hypotheses. Change anything where it stands, and it reads so here.
          </p>
        </Note>
        <Note heading="Not built yet">
          <p>Your own prose between the blocks, figures, choosing what stands in a table, and documents as DOCX.</p>
        </Note>
      </Margin>
    </div>
  );
}

/** The page is the paper. */
function Paper({ manuscript }: { manuscript: Manuscript }) {
  return (
    <article className={css.paper} aria-label="Manuscript">
      <h1>{manuscript.title}</h1>
      {manuscript.blocks.map((block) => (
        <Written key={block.key} block={block} />
      ))}
    </article>
  );
}

function Written({ block }: { block: Block }): ReactNode {
  if (block.kind === "heading") return block.level === 2 ? <h2>{block.text}</h2> : <h3>{block.text}</h3>;
  if (block.kind === "paragraph")
    return (
      <p>
        {block.sentences.map((sentence, k) => (
          <span key={k}>
            <Said>{sentence}</Said>{" "}
          </span>
        ))}
      </p>
    );
  return (
    <section className={css.table} aria-label={`Table ${block.number}`}>
      <p className={css.caption}>
        <b>Table {block.number}</b>
        <br />
        <i>
          <Said>{block.table.title}</Said>
        </i>
      </p>
      <div className={css.scroll} tabIndex={0} role="group" aria-label={`Table ${block.number}, numbers`}>
        <PrintedTable table={block.table} className={css.numbers} testId={`table-${block.number}`} />
      </div>
      <p className={css.note}>
        <i>Note.</i> <Said>{block.table.note}</Said>
      </p>
      <TableWays block={block} />
    </section>
  );
}

/** A table on its way into a text of one's own: pasted as a table, or as CSV. */
function TableWays({ block: { table, number } }: { block: Extract<Block, { kind: "table" }> }) {
  const { study } = useStudy();
  const [said, setSaid] = useState("");
  const copy = async () => {
    const [{ tableToPaste }, { printedRows }] = await Promise.all([import("@/files/table-html"), import("@/files/print-table-csv")]);
    const blob = (type: string, text: string) => new Blob([text], { type });
    const cells = printedRows(table).map((row) => row.join("\t")).join("\n"); // prettier-ignore
    try {
      await navigator.clipboard.write([new ClipboardItem({ "text/html": blob("text/html", tableToPaste(table, number)), "text/plain": blob("text/plain", cells) })]); // prettier-ignore
      setSaid(`Table ${number} is in the clipboard.`);
    } catch {
      setSaid("The browser does not give the clipboard. Save it as CSV, or the whole as HTML.");
    }
  };
  const csv = async () => {
    const { printTableCsv } = await import("@/files/print-table-csv");
    saveFile(fileName(`${study.name} table ${number}`, "csv"), "text/csv", printTableCsv(table));
  };
  return (
    <p className={css.ways}>
      <button type="button" className="link" onClick={() => void copy()}>
        Copy Table {number}
      </button>
      <button type="button" className="link" onClick={() => void csv()}>
        Save Table {number} as CSV
      </button>
      <span role="status" className="quiet">
        {said}
      </span>
    </p>
  );
}

/** The same with what one ladder's replicates give; undefined: they are still being drawn. */
function withDrawn(now: ReadonlyMap<string, ReplicateIntervals | null>, id: string, found: ReplicateIntervals | null | undefined) {
  const next = new Map(now);
  if (found === undefined) next.delete(id);
  else next.set(id, found);
  return next;
}

/** Intervals of a ladder that takes them from replicates. */
function Drawn({ ladder, onDrawn }: { ladder: Ladder; onDrawn: (found: ReplicateIntervals | null | undefined) => void }) {
  const { intervals, computing } = useReplicates("ladder", ladder, null, true);
  const whole = computing ? undefined : intervals;
  // told once for each set: the page above holds those of all ladders
  useEffect(() => onDrawn(whole), [whole]); // eslint-disable-line react-hooks/exhaustive-deps
  return null;
}
