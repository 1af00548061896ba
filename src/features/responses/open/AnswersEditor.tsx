"use client";

import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { Button, Input, InputNumber } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { answerKey } from "@/study/model/reading";
import { formatCount } from "@/study/report/format-number";
import { draftFault, type DraftReading, type PlacedAnswer, readingEdits, runWords } from "@/study/report/open-words";
import { listCarried } from "@/ui/parts/carried";
import page from "../responses.module.css";
import css from "./open.module.css";

/** The answers of a set in their order: carried to another place they change numbers with it; each number can be typed, each answer set apart. */
export function AnswersEditor({ start, onClose }: { start: DraftReading; onClose: () => void }) {
  const { study, store } = useStudy();
  const [draft, setDraft] = useState(start);
  const fault = draftFault(draft);
  const [further, setFurther] = useState("");
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const placed = draft.answers.filter((one) => !one.apart);
  const apart = draft.answers.filter((one) => one.apart);
  const put = (answers: PlacedAnswer[]) => setDraft({ ...draft, answers });
  const change = (written: string, to: Partial<PlacedAnswer>) =>
    put(draft.answers.map((one) => (one.written === written ? { ...one, ...to } : one)));
  /** Numbers stay in their places: what is carried up takes the lower one. */
  const reorder = (from: number, to: number) => {
    const moved = arrayMove(placed, from, to);
    const first = placed.find((one) => one.value !== null)?.value ?? 1;
    const known = placed.every((one) => one.value !== null) ? placed.map((one) => one.value!) : placed.map((_, i) => first + i);
    const values = [...known].sort((a, b) => a - b);
    put([...moved.map((one, i) => ({ ...one, value: values[i]! })), ...apart]);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const at = (id: unknown) => placed.findIndex((one) => one.written === id);
    if (over && active.id !== over.id) reorder(at(active.id), at(over.id));
  };
  const count = () => put([...placed.map((one, i) => ({ ...one, value: i + 1 })), ...apart]);
  const turn = () => {
    const values = placed.map((one) => one.value);
    put([...placed.map((one, i) => ({ ...one, value: values.at(-1 - i) ?? null })).reverse(), ...apart]);
  };
  /** A further point of the scale, above the others: it can then be carried to its place. */
  const add = () => {
    const written = further.trim();
    if (written === "" || draft.answers.some((one) => answerKey(one.written) === answerKey(written))) return;
    const value = Math.max(0, ...placed.map((one) => one.value ?? 0)) + 1;
    put([...placed, { written, count: 0, value, apart: false, spellings: [written] }, ...apart]);
    setFurther("");
  };
  const keep = () => {
    if (fault === null && store.edit(...readingEdits(draft, study))) onClose();
  };
  return (
    <form
      className={css.editor}
      aria-label={`How ${runWords(draft.variables)} ${draft.variables.length === 1 ? "is" : "are"} read`}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <label>
        What the answers say{" "}
        <Input
          size="small"
          style={{ width: 220 }}
          value={draft.name}
          onChange={(event) => setDraft({ ...draft, name: event.target.value })}
        />
      </label>
      <DndContext
        id="answers"
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={drop}
        accessibility={listCarried(
          "answer",
          placed.map((one) => one.written),
          String,
        )}
      >
        <SortableContext items={placed.map((one) => one.written)} strategy={verticalListSortingStrategy}>
          <table className={css.answers}>
            <caption className="visually-hidden">Answers from least to most</caption>
            <thead>
              <tr>
                <td />
                <th scope="col">Answer, from least to most</th>
                <th scope="col">Given</th>
                <th scope="col">Number</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {placed.map((one) => (
                <Row key={one.written} answer={one} onChange={(to) => change(one.written, to)} />
              ))}
            </tbody>
          </table>
        </SortableContext>
      </DndContext>
      <p>
        <Input
          size="small"
          style={{ width: 220 }}
          aria-label="An answer nobody gave"
          placeholder="an answer nobody gave"
          maxLength={200}
          value={further}
          onChange={(event) => setFurther(event.target.value)}
          onPressEnter={(event) => {
            event.preventDefault();
            add();
          }}
        />{" "}
        <button type="button" className="link" disabled={further.trim() === ""} onClick={add}>
          Add it at the end
        </button>
      </p>
      {apart.length > 0 && (
        <p>
          Set apart as missing:{" "}
          {apart.map((one) => (
            <span key={one.written} className={css.apart}>
              {one.written}
              {one.count === null ? "" : ` (${formatCount(one.count)})`}{" "}
              <button
                type="button"
                className="link"
                aria-label={`${one.written} is an answer`}
                onClick={() => change(one.written, { apart: false })}
              >
                is an answer
              </button>
            </span>
          ))}
        </p>
      )}
      <p className={page.ways}>
        <Button type="primary" size="small" htmlType="submit" disabled={fault !== null}>
          Read {draft.variables.length === 1 ? draft.variables[0] : `all ${draft.variables.length}`} so
        </Button>
        <button type="button" className="link" onClick={count}>
          Number them 1 to {placed.length}
        </button>
        <button type="button" className="link" onClick={turn}>
          Turn the order round
        </button>
        <button type="button" className="link" onClick={onClose}>
          Close
        </button>
      </p>
      {fault && (
        <p role="status" className="quiet">
          {fault}
        </p>
      )}
    </form>
  );
}

function Row({ answer, onChange }: { answer: PlacedAnswer; onChange: (to: Partial<PlacedAnswer>) => void }) {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({ id: answer.written });
  return (
    <tr
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={isDragging ? css.lifted : undefined}
      data-testid={`answer ${answer.written}`}
    >
      <td>
        <button
          type="button"
          ref={setActivatorNodeRef}
          className={css.handle}
          {...attributes}
          {...listeners}
          aria-label={`Move ${answer.written}`}
        >
          <svg width={9} height={13} aria-hidden="true">
            <path d="M4.5 0 8 4H1ZM4.5 13 1 9h7Z" fill="currentColor" />
          </svg>
        </button>
      </td>
      <th scope="row">{answer.written}</th>
      <td className={css.count}>{answer.count === null ? "" : answer.count === 0 ? "by nobody" : formatCount(answer.count)}</td>
      <td>
        <InputNumber
          size="small"
          style={{ width: 70 }}
          aria-label={`Number of ${answer.written}`}
          value={answer.value}
          onChange={(value) => onChange({ value })}
        />
      </td>
      <td>
        <button
          type="button"
          className="link"
          aria-label={`Set ${answer.written} apart as missing`}
          onClick={() => onChange({ apart: true, value: null })}
        >
          set apart
        </button>
      </td>
    </tr>
  );
}
