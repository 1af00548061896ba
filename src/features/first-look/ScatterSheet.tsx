"use client";

import { useMemo } from "react";
import { fitLine, lineAtPlace } from "@/core/describe/fit-line";
import { ComputationState } from "@/features/study/ComputationState";
import { QuoteThis } from "@/features/study/QuoteThis";
import { categoryChoices, numericChoices } from "@/features/study/name-choices";
import { useStudy } from "@/features/study/study-context";
import { useAxis } from "@/features/study/use-axis";
import { useAsked } from "@/features/study/use-computed";
import type { PairFit } from "@/study/analyse/analyse-pair";
import type { Look, Panelling, Scatter } from "@/study/model/look";
import { formatCount, formatNumber, formatShare, formatValue } from "@/study/report/format-number";
import { type Looked, type Paired, partName, whatThePairSays } from "@/study/report/look-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { MOST_POINTS, ScatterChart, type ScatterLine, type ScatterPoints } from "@/ui/charts/ScatterChart";
import { FieldWord } from "@/ui/parts/FieldWord";
import page from "@/ui/parts/page.module.css";
import { Said } from "@/ui/parts/Said";
import { SettingWord } from "@/ui/parts/SettingWord";
import css from "./first-look.module.css";
import { useMarked } from "./marked";
import { PairPicture } from "./PairPicture";
import { rangeOf } from "./range-of";

interface Props {
  scatter: Scatter;
  respondents: string | null;
  /** The look that its r stands in, for who quotes it. */
  look: Look;
  looked: Looked | null;
  /** Null: it is put away. */
  onChange: (to: Scatter | null) => void;
}

/** Two numbers against each other, with lines by a category and panels by one or two further variables. */
export function ScatterSheet({ scatter, respondents, look, looked, onChange }: Props) {
  const { study, title } = useStudy();
  const { x, y, by, panels } = scatter;
  const computed = useAsked("pair", { x, y, by, panels, respondents }, { subject: `pair ${scatter.id}` });
  const found = computed.result?.status === "paired" ? computed.result : null;
  const key = (name: string) => looked?.columns.find((c) => c.variable === name && c.level === null)?.key;
  const [a, b] = [key(x), key(y)];
  const quoted = a === undefined || b === undefined ? null : `r|${[a, b].sort().join("|")}`;
  const numbers = numericChoices(study);
  const categories = categoryChoices(study);
  const taken = [x, y, ...(by === null ? [] : [by]), ...panels.map((p) => p.variable)];
  const cut = (at: number): { value: string; label: string; group?: string }[] => [
    { value: "-", label: "nothing" },
    ...[...categories, ...numbers].filter((c) => !taken.includes(c.value) || panels[at]?.variable === c.value),
  ];
  const setPanel = (at: number, value: string) =>
    onChange({
      ...scatter,
      panels:
        value === "-"
          ? panels.filter((_, i) => i !== at)
          : [...panels.slice(0, at), { variable: value, edges: null }, ...panels.slice(at + 1)],
    });
  const isCategory = (name: string) => categories.some((c) => c.value === name);
  const edges = (at: number, to: Panelling["edges"]) =>
    onChange({ ...scatter, panels: panels.map((p, i) => (i === at ? { ...p, edges: to } : p)) });
  const panelWord = (at: number) => {
    const panel = panels[at];
    return (
      <>
        <SettingWord
          label={at === 0 ? "Panels" : "Panels across"}
          value={panel?.variable ?? "-"}
          text={panel ? title(panel.variable) : "nothing"}
          choices={cut(at)}
          onChange={(value) => setPanel(at, value)}
        />
        {panel && !isCategory(panel.variable) && (
          <small>
            {" "}
            (
            <FieldWord
              label={`Edges of ${title(panel.variable)}`}
              text={panel.edges ? panel.edges.map(formatValue).join(", ") : "thirds"}
              initial={panel.edges?.join("; ") ?? ""}
              className="link"
              width={140}
              read={edgesTyped}
              rule="One to five numbers in ascending order, with blanks or semicolons between."
              onChange={(to) => edges(at, to.length === 0 ? null : to)}
            />
            )
          </small>
        )}
      </>
    );
  };
  return (
    <article className={css.part} aria-label={`Scatter: ${title(y)} against ${title(x)}`} aria-busy={computed.outdated}>
      <p className={css.of}>
        <span>Scatter</span>
        <button type="button" className="link" onClick={() => onChange(null)}>
          Put away
        </button>
      </p>
      <h2 className={page.sentence}>
        <SettingWord
          label="Upright"
          main
          value={y}
          text={title(y)}
          choices={numbers.filter((c) => c.value !== x)}
          onChange={(to) => onChange({ ...scatter, y: to })}
        />{" "}
        against{" "}
        <SettingWord
          label="Across"
          main
          value={x}
          text={title(x)}
          choices={numbers.filter((c) => c.value !== y)}
          onChange={(to) => onChange({ ...scatter, x: to })}
        />
        , lines by{" "}
        <SettingWord
          label="Lines by"
          value={by ?? "-"}
          text={by === null ? "nothing" : title(by)}
          choices={[{ value: "-", label: "nothing" }, ...categories]}
          onChange={(to) => onChange({ ...scatter, by: to === "-" ? null : to })}
        />
        , panels for each part of {panelWord(0)}
        {panels.length > 0 && <> and of {panelWord(1)}</>}.
      </h2>
      <ComputationState of={computed} refusal={computed.result?.status === "refused" ? computed.result.refusal : null} />
      {found && (
        <div className={computed.outdated ? page.outdated : undefined}>
          {found.panels.length === 0 ? <OnePicture scatter={scatter} found={found} /> : <Panels scatter={scatter} found={found} />}
          <ul className={page.said} aria-label="What it says">
            {whatThePairSays(scatter, found, title).map((sentence, i) => (
              <li key={i}>
                <Said>{sentence}</Said>
              </li>
            ))}
          </ul>
          {looked && quoted && (
            <QuoteThis of={{ number: quoted }} part={{ look: { look, found: looked } }} words="Quote this correlation" />
          )}
        </div>
      )}
    </article>
  );
}

function edgesTyped(typed: string): number[] | null {
  const numbers = typed.replaceAll("−", "-").split(/[;\s]+/).filter(Boolean).map((part) => Number(part.replace(",", "."))); // prettier-ignore
  return numbers.length <= 5 && numbers.every((v, i) => Number.isFinite(v) && (i === 0 || v > numbers[i - 1]!)) ? numbers : null;
}

const FEW_VALUES = 12;

/** Answers on few steps hide each other: they are moved a little, always the same. */
function jittered(values: Float64Array, rows: Int32Array, salt: number): { values: Float64Array; step: number } {
  const distinct = [...new Set(values)].sort((a, b) => a - b);
  if (distinct.length > FEW_VALUES || distinct.length < 2) return { values, step: 0 };
  const step = distinct.slice(1).reduce((least, v, i) => Math.min(least, v - distinct[i]!), Infinity);
  return { values: values.map((v, i) => v + 0.5 * step * ((Math.imul(rows[i]! + salt, 2654435761) >>> 0) / 4294967296 - 0.5)), step };
}

function usePoints(found: Paired): { points: ScatterPoints; jitter: boolean } {
  return useMemo(() => {
    const [a, b] = [jittered(found.x, found.rows, 17), jittered(found.y, found.rows, 91)];
    return { points: { x: a.values, y: b.values, group: found.by?.codes ?? null }, jitter: a.step > 0 || b.step > 0 };
  }, [found]);
}

const PLACES = 25;

function lineOf(fit: PairFit, x: Float64Array, name: string, group: number | null, look: ScatterLine["look"]): ScatterLine[] {
  if (!fit.line || x.length === 0) return [];
  const { line } = fit;
  const [low, high] = rangeOf(x);
  return [{ name, group, look, points: Array.from({ length: PLACES }, (_, i) => low + ((high - low) * i) / (PLACES - 1)).map((at) => ({ x: at, ...lineAtPlace(line, at) })) }]; // prettier-ignore
}

function smoothOf(fit: PairFit, group: number | null): ScatterLine[] {
  if (!fit.smooth) return [];
  const { x, y } = fit.smooth;
  return [{ name: "", group, look: "smooth", points: Array.from(x, (at, i) => ({ x: at, y: y[i]!, lower: null, upper: null })) }];
}

/** The line without the marked respondents, when there are some. */
function useWithout(found: Paired): ScatterLine[] {
  const marked = useMarked();
  return useMemo(() => {
    const left = [...found.rows.keys()].filter((i) => !marked.rows.has(found.rows[i]!));
    if (left.length === found.rows.length) return [];
    const [x, y] = [Float64Array.from(left, (i) => found.x[i]!), Float64Array.from(left, (i) => found.y[i]!)];
    const line = fitLine(x, y, found.confidence);
    return lineOf({ n: left.length, line, smooth: null, test: null }, x, "without them", null, "without");
  }, [found, marked.rows]);
}

function OnePicture({ scatter, found }: { scatter: Scatter; found: Paired }) {
  const { title } = useStudy();
  const axis = useAxis();
  const { points, jitter } = usePoints(found);
  const without = useWithout(found);
  const names = found.by?.parts.map((_, part) => partName(found.by!, part, title)) ?? [];
  const inGroup = (group: number) => found.x.filter((_, i) => found.by!.codes[i] === group);
  const lines = found.by
    ? found.fits.flatMap(({ group, fit }) => [...lineOf(fit, inGroup(group!), names[group!]!, group, "line"), ...smoothOf(fit, group)])
    : [...lineOf(found.whole, found.x, "line", null, "line"), ...smoothOf(found.whole, null)];
  const name = `${title(scatter.y)} against ${title(scatter.x)}`;
  const drawn = {
    points,
    lines: [...lines, ...(found.by && without.length > 0 ? lineOf(found.whole, found.x, "all", null, "faint") : []), ...without],
    frame: { width: 720, height: 420, names: true, x: rangeOf(points.x), y: rangeOf(points.y) },
    title: name,
    axis: axis(scatter.x),
    outcome: axis(scatter.y),
  };
  return (
    <ChartFrame
      saved={<ScatterChart {...drawn} marked={new Set()} cursor={null} format={formatValue} />}
      title={name}
      note={`n = ${formatCount(found.x.length)}; line with its 95 % band, dotted the smooth (LOWESS, two thirds of the respondents at a time${found.coarse ? ", in bins of neighbours" : ""})${points.x.length > MOST_POINTS ? "; squares by how many lie in them" : ""}${jitter ? "; answers on few steps are moved apart a little" : ""}`}
      table={<FitTable found={found} title={name} />}
    >
      <PairPicture rows={found.rows} values={found} {...drawn} />
    </ChartFrame>
  );
}

/** A panel a part, on the same axes; the first panel's line goes faintly through all of them. */
function Panels({ scatter, found }: { scatter: Scatter; found: Paired }) {
  const { title } = useStudy();
  const axis = useAxis();
  const { points } = usePoints(found);
  const frame = { width: 360, height: 260, names: found.by !== null, x: rangeOf(points.x), y: rangeOf(points.y) };
  const groups = found.by?.parts.map((_, part) => partName(found.by!, part, title)) ?? [];
  const keys = [...new Map(found.fits.map(({ panel }) => [panel.join(), panel])).values()];
  const first = found.fits.filter(({ panel }) => panel.join() === keys[0]?.join());
  const across = found.panels[1]?.parts.length ?? Math.min(3, found.panels[0]!.parts.length);
  return (
    <div className={css.panels} style={{ gridTemplateColumns: `repeat(${Math.min(3, across)}, minmax(0, 1fr))` }} data-testid="panels">
      {keys.map((panel) => {
        const places = [...found.rows.keys()].filter((i) => found.panels.every(({ codes }, k) => codes[i] === panel[k]));
        const own = found.fits.filter((f) => f.panel.join() === panel.join());
        const take = (of: Float64Array) => Float64Array.from(places, (i) => of[i]!);
        const name = panel.map((part, k) => partName(found.panels[k]!, part, title)).join(", ");
        const lines = [
          ...first.flatMap(({ fit, group }) => lineOf(fit, found.x, "", group, "faint")),
          ...own.flatMap(({ fit, group }) => [...lineOf(fit, take(found.x), group === null ? "" : groups[group]!, group, "line"), ...smoothOf(fit, group)]), // prettier-ignore
        ];
        const drawn = {
          points: { x: take(points.x), y: take(points.y), group: points.group && Int32Array.from(places, (i) => points.group![i]!) },
          lines,
          frame,
          title: `${title(scatter.y)} against ${title(scatter.x)}, ${name}`,
          axis: axis(scatter.x),
          outcome: axis(scatter.y),
        };
        return (
          <ChartFrame
            saved={<ScatterChart {...drawn} marked={new Set()} cursor={null} format={formatValue} />}
            key={panel.join()}
            title={name}
            note={`n = ${formatCount(places.length)}${own[0]?.fit.line ? `, slope ${own.map(({ fit }) => formatNumber(fit.line?.slope ?? null)).join(", ")}` : ""}`}
            table={<FitTable found={found} title={name} />}
          >
            <PairPicture rows={Int32Array.from(places, (i) => found.rows[i]!)} values={{ x: take(found.x), y: take(found.y) }} {...drawn} />
          </ChartFrame>
        );
      })}
    </div>
  );
}

/** The lines behind the picture. */
function FitTable({ found, title: caption }: { found: Paired; title: string }) {
  const { title } = useStudy();
  const rows = [
    { name: "all", fit: found.whole },
    ...found.fits.map(({ panel, group, fit }) => ({ name: [...panel.map((part, k) => partName(found.panels[k]!, part, title)), ...(group === null ? [] : [partName(found.by!, group, title)])].join(", "), fit })), // prettier-ignore
  ];
  return (
    <div className={css.scroll}>
      <table className={css.table} data-testid="fits">
        <caption className="visually-hidden">{caption}</caption>
        <thead>
          <tr>
            <th scope="col" className={css.name}>
              who
            </th>
            <th scope="col">
              <i>n</i>
            </th>
            <th scope="col">intercept</th>
            <th scope="col">slope</th>
            <th scope="col">
              <i>R</i>²
            </th>
            <th scope="col">
              <i>r</i>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, fit }) => (
            <tr key={name}>
              <th scope="row" className={css.name}>
                {name}
              </th>
              <td>{formatCount(fit.n)}</td>
              <td>{formatNumber(fit.line?.intercept ?? null)}</td>
              <td>{formatNumber(fit.line?.slope ?? null)}</td>
              <td>{formatShare(fit.line?.R2 ?? null)}</td>
              <td>{formatShare(fit.test?.r ?? null)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
