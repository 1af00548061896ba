"use client";

import { Button } from "antd";
import Link from "next/link";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Computed } from "@/features/study/use-computed";
import { namesOf, type OpenPoint } from "@/study/analyse/responses/open-points";
import { asTheyAre, draftOf, draftOfReading, type DraftReading, openFix, openWords } from "@/study/report/open-words";
import { understoodWords } from "@/study/report/understood-words";
import { counted } from "@/study/report/format-number";
import page from "../responses.module.css";
import { AmountsEditor } from "./AmountsEditor";
import { AnswersEditor } from "./AnswersEditor";
import { NamesEditor } from "./NamesEditor";
import css from "./open.module.css";
import { RangeEditor } from "./RangeEditor";

interface Props {
  points: Computed<OpenPoint[]>;
  asked: boolean;
  onAsk: () => void;
}

/** One list after a file has come in: what was understood of it, and what is still open, each with its fix. */
export function OpenSection({ points, asked, onAsk }: Props) {
  const { study, store } = useStudy();
  const [editing, setEditing] = useState<string | null>(null);
  const open = points.result ?? [];
  const scaled = new Set(study.scales.flatMap((s) => s.items.map((item) => item.variable)));
  const waiting = new Set(open.flatMap(namesOf));
  const loose = study.codebook.filter((v) => v.kind === "item" && !v.asIs && !scaled.has(v.name) && !waiting.has(v.name));
  const understood = understoodWords(study);
  const close = () => setEditing(null);
  return (
    <section id="open" aria-label="Understood, and open" className={`${page.section} ${css.section}`}>
      <h2>Understood, and open</h2>
      <ul className={css.list} aria-label="Understood">
        {understood.map((line) => (
          <li key={line.key} className={css.done}>
            {line.words}{" "}
            <span className={page.ways}>
              {line.reading && (
                <>
                  {line.reading.rule.kind === "words" && (
                    <button
                      type="button"
                      className="link"
                      aria-label={`Change the reading ${line.reading.name}`}
                      onClick={() => setEditing(editing === line.key ? null : line.key)}
                    >
                      Change
                    </button>
                  )}
                  <button
                    type="button"
                    className="link"
                    aria-label={`Take the reading ${line.reading.name} back`}
                    onClick={() => void store.edit(...line.takeBack!)}
                  >
                    Take back
                  </button>
                </>
              )}
            </span>
            {editing === line.key && line.reading && (
              <AnswersEditor start={draftOfReading(line.reading, study.codebook, [])} onClose={close} />
            )}
          </li>
        ))}
      </ul>
      {!asked && (
        <p>
          This is a large file. <Button onClick={onAsk}>See what is open in all of it</Button>
        </p>
      )}
      {points.fault && <p role="alert">{points.fault}</p>}
      {asked && points.computing && !points.result && (
        <p role="status">
          Looking at every column …{" "}
          <button type="button" className="link" onClick={points.stop}>
            Stop
          </button>
        </p>
      )}
      {points.result && open.length === 0 && loose.length === 0 && <p className={css.nothing}>Nothing is open in this file.</p>}
      <ul className={`${css.list} ${points.outdated ? page.outdated : ""}`} aria-label="Open">
        {open.map((point) => {
          const key = `${point.kind} ${namesOf(point)[0]}`;
          return (
            <OpenLine
              key={key}
              point={point}
              editing={editing === key}
              onEdit={() => setEditing(editing === key ? null : key)}
              onClose={close}
            />
          );
        })}
        {loose.length > 0 && (
          <li className={css.open}>
            {counted(loose.length, "item is", "items are")} in no scale yet.{" "}
            <span className={page.ways}>
              <Link className="link" href={`/studies/${store.id}/scales`}>
                Gather them into scales
              </Link>
              <button
                type="button"
                className="link"
                onClick={() =>
                  void store.edit(
                    ...asTheyAre(
                      loose.map((v) => v.name),
                      study,
                    ),
                  )
                }
              >
                Leave them single
              </button>
            </span>
          </li>
        )}
      </ul>
      <NamesEditor />
    </section>
  );
}

function OpenLine(props: { point: OpenPoint; editing: boolean; onEdit: () => void; onClose: () => void }) {
  const { study, store } = useStudy();
  const { point, editing } = props;
  const fix = openFix(point, study);
  const names = namesOf(point);
  const draft = draftFor(point, study);
  const about = names[0]!;
  const edited = draft !== null || point.kind === "amounts" || point.kind === "range";
  return (
    <li className={css.open} data-testid={`open ${point.kind} ${about}`}>
      {openWords(point, study)}{" "}
      <span className={page.ways}>
        {fix && (
          <Button size="small" aria-label={`${fix.label}: ${about}`} onClick={() => void store.edit(...fix.edits)}>
            {fix.label}
          </Button>
        )}
        {edited && (
          <button type="button" className="link" aria-expanded={editing} aria-label={`Change how ${about} is read`} onClick={props.onEdit}>
            {point.kind === "range" ? "Other answers were possible" : fix ? "Change it first" : "Place them"}
          </button>
        )}
        <button
          type="button"
          className="link"
          aria-label={`Leave ${about} as it is`}
          onClick={() => void store.edit(...asTheyAre(names, study))}
        >
          Leave as it is
        </button>
      </span>
      {editing && draft && <AnswersEditor start={draft} onClose={props.onClose} />}
      {editing && point.kind === "amounts" && <AmountsEditor point={point} onClose={props.onClose} />}
      {editing && point.kind === "range" && <RangeEditor point={point} onClose={props.onClose} />}
    </li>
  );
}

function draftFor(point: OpenPoint, study: Parameters<typeof openWords>[1]): DraftReading | null {
  if (point.kind === "answers") return draftOf(point.set);
  if (point.kind !== "unread") return null;
  const reading = study.readings.find((r) => r.id === point.reading);
  return reading?.rule.kind === "words" ? draftOfReading(reading, study.codebook, point.answers) : null;
}
