"use client";

import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { scaleLinear } from "d3-scale";
import { useStudy } from "@/features/study/study-context";
import type { ItemStatistics } from "@/core/reliability/cronbach-alpha";
import type { ScaleAnalysis } from "@/study/analyse/analyse-scale";
import type { AnswerStrip as Strip } from "@/study/analyse/answer-strip";
import type { Scale, ScaleItem } from "@/study/model/scale";
import { formatNumber, formatPlain, formatShare } from "@/study/report/format-number";
import { AnswerStrip } from "@/ui/charts/AnswerStrip";
import { FieldWord } from "@/ui/parts/FieldWord";
import { type Dragged, type DropPlace, useDropPlace } from "./drag";
import { takeOut, turnItems } from "./scale-edits";
import { readNumber } from "@/ui/parts/read-number";
import css from "./scales.module.css";

/** The items of a scale: keying, weight, answers, and how each goes with the others. Rows can be carried to another place. */
export function ScaleItems(props: {
  scale: Scale;
  analysis: ScaleAnalysis | null;
  strips: readonly Strip[];
  onChange: (scale: Scale) => void;
}) {
  const { scale } = props;
  const weighted = scale.rule === "weighted";
  const { attach, isOver } = useDropPlace("sheet", { kind: "sheet" });
  return (
    <div ref={attach} className={`${css.scroll} ${isOver ? css.sheetOver : ""}`}>
      <SortableContext id="rows" items={scale.items.map((item) => rowId(item.variable))} strategy={verticalListSortingStrategy}>
        <table className={css.table}>
          <caption className="visually-hidden">Items of {scale.name}</caption>
          <thead>
            <tr>
              <td />
              <th scope="col" colSpan={2}>
                Item
              </th>
              <th scope="col">Keyed</th>
              {weighted && <th scope="col">Weight</th>}
              <th scope="col">Answers</th>
              <th scope="col">
                <i>M</i> (<i>SD</i>)
              </th>
              <th scope="col" title="Correlation with the sum of the other items">
                With the rest
              </th>
              <th scope="col" title="Alpha of the other items">
                α without
              </th>
              <td />
            </tr>
          </thead>
          <tbody>
            {scale.items.map((item, i) => {
              const strip = props.strips.find((s) => s.variable === item.variable);
              const own = props.analysis?.strips[i]?.variable === item.variable;
              return (
                <ItemRow
                  key={item.variable}
                  item={item}
                  index={i}
                  scale={scale}
                  strip={strip}
                  stats={own ? props.analysis?.reliability.alpha?.perItem[i] : undefined}
                  against={props.analysis?.against.includes(item.variable) ?? false}
                  onChange={props.onChange}
                />
              );
            })}
          </tbody>
        </table>
      </SortableContext>
    </div>
  );
}

const rowId = (variable: string) => `row ${variable}`;

function ItemRow(props: {
  item: ScaleItem;
  index: number;
  scale: Scale;
  strip: Strip | undefined;
  stats: ItemStatistics | undefined;
  against: boolean;
  onChange: (scale: Scale) => void;
}) {
  const { study, title } = useStudy();
  const { item, scale, strip, stats, onChange } = props;
  const { variable } = item;
  const name = title(variable);
  const data = {
    dragged: { names: [variable], from: "sheet" } satisfies Dragged,
    place: { kind: "row", index: props.index } satisfies DropPlace,
  };
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: rowId(variable),
    data,
  });
  const without = takeOut(scale, [variable]);
  const part = study.scales.some((s) => s.id === variable);
  const others = study.scales.filter((s) => s.id !== scale.id && s.items.some((i) => i.variable === variable)).map((s) => s.name);
  return (
    <tr
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={isDragging ? css.lifted : undefined}
      data-testid={`item ${variable}`}
    >
      <td>
        <button type="button" ref={setActivatorNodeRef} className={css.handle} {...attributes} {...listeners} aria-label={`Move ${name}`}>
          <svg width={9} height={13} aria-hidden="true">
            <path d="M4.5 0 8 4H1ZM4.5 13 1 9h7Z" fill="currentColor" />
          </svg>
        </button>
      </td>
      <th scope="row">{part ? name : variable}</th>
      <td className={css.wording}>
        {part ? <span className="quiet">the scale&rsquo;s score</span> : study.codebook.find((v) => v.name === variable)?.label}
        {others.length > 0 && <small className={css.also}>also in {others.join(", ")}</small>}
      </td>
      <td>
        <button
          type="button"
          className={css.key}
          aria-pressed={item.reversed}
          aria-label={`${name} turned round`}
          onClick={() => onChange(turnItems(scale, variable))}
        >
          {item.reversed ? "turned round" : "as asked"}
        </button>
        {props.against && <small className={css.suspect}>wrong way?</small>}
      </td>
      {scale.rule === "weighted" && (
        <td>
          <FieldWord
            label={`Weight of ${name}`}
            text={formatPlain(Number(item.weight.toFixed(3)))}
            initial={formatPlain(item.weight)}
            width={90}
            className={css.weight}
            rule="A number, please."
            read={readNumber}
            onChange={(weight) =>
              onChange({
                ...scale,
                weightsFrom: "",
                items: scale.items.map((other) => (other === item ? { ...other, weight } : other)),
              })
            }
          />
        </td>
      )}
      <td>{strip && <AnswerStrip strip={strip} width={104} />}</td>
      <td className={css.spread}>
        {stats && (
          <>
            {formatNumber(stats.mean)} <small>({formatNumber(stats.sd)})</small>
          </>
        )}
      </td>
      <td>{stats && <WithTheRest r={stats.withTheRest} />}</td>
      <td>{stats && formatShare(stats.alphaWithout)}</td>
      <td>
        {without && (
          <button type="button" className={css.out} aria-label={`Take ${name} out of the scale`} onClick={() => onChange(without)}>
            ×
          </button>
        )}
      </td>
    </tr>
  );
}

const along = scaleLinear().domain([-0.75, 1]).range([0, 56]).clamp(true);

/** The item's correlation with the others as a number and a bar; in rust below .30, where the dotted line stands. */
function WithTheRest({ r }: { r: number | null }) {
  return (
    <span className={css.rest}>
      <b>{formatShare(r)}</b>
      <svg width={58} height={14} aria-hidden="true">
        {r !== null && (
          <rect
            x={along(Math.min(0, r))}
            width={Math.max(1, along(Math.abs(r)) - along(0))}
            y={3}
            height={8}
            fill={r < 0.3 ? "var(--rust)" : "var(--plum)"}
          />
        )}
        <line x1={along(0)} x2={along(0)} y1={1} y2={13} stroke="var(--rule-strong)" />
        <line x1={along(0.3)} x2={along(0.3)} y1={0} y2={14} stroke="var(--ink)" strokeDasharray="1.5 1.5" />
      </svg>
    </span>
  );
}
