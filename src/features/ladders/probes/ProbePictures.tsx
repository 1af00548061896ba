"use client";

import { useMemo, useState } from "react";
import { effectAt } from "@/core/regression/simple-effects";
import { useStudy } from "@/features/study/study-context";
import type { ProbeResult } from "@/study/analyse/analyse-probe";
import { cellsAt, lineAt, type ProbeReading } from "@/study/analyse/read-probe";
import type { Probe } from "@/study/model/probe";
import { formatCount, formatInterval, formatNumber, formatValue } from "@/study/report/format-number";
import { moderatorPlaceName, placeName } from "@/study/report/ladder/probe-words";
import { levelTitle } from "@/study/report/level-title";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { EffectAlongChart } from "@/ui/charts/EffectAlongChart";
import { PredictedLines } from "@/ui/charts/PredictedLines";
import ladders from "../ladders.module.css";
import css from "./probes.module.css";

type Probed = Extract<ProbeResult, { status: "probed" }>;

interface Props {
  probe: Probe;
  reading: ProbeReading;
  result: Probed;
  onMove: (moderators: Probe["moderators"]) => void;
  onRest: () => void;
}

/** Two linked pictures: what is predicted, and the slope itself along the moderator; of two categories the predicted cells. */
export function ProbePictures(props: Props) {
  const square = props.probe.moderators.some((m) => m.variable === props.probe.focal);
  return (
    <div className={css.pictures}>
      {!props.result.ground.spreads.has(props.probe.focal) ? <Cells {...props} /> : square ? null : <Lines {...props} />}
      {props.reading.along.length > 0 && props.reading.effects.length === 1 && <Along {...props} />}
    </div>
  );
}

const POINTS = 33;
const MOST_LINES = 9;

function Lines({ probe, reading, result }: Props) {
  const { title } = useStudy();
  const [raw, setRaw] = useState(false);
  const { ground, points } = result;
  // of several moderators the first one's places are drawn, the others at their middle: nine lines would be read by nobody
  const [first, ...others] = probe.moderators;
  const middle = (variable: string) => {
    const labels = [...new Set(reading.places.map(({ at }) => at.find((a) => a.variable === variable)!.label))];
    return labels[Math.floor((labels.length - 1) / 2)]!;
  };
  const held = others.map((m) => ({ variable: m.variable, label: middle(m.variable) }));
  const places = reading.places.filter(({ at }) => held.every((h) => at.some((a) => a.variable === h.variable && a.label === h.label)));
  const lines = places.slice(0, MOST_LINES).flatMap((place) => {
    const found = lineAt(ground, probe.focal, place, POINTS);
    if (found.some((p) => p.predicted === null)) return [];
    return [
      {
        name: moderatorPlaceName(
          place.at.find((a) => a.variable === first!.variable)!,
          title,
        ),
        points: found.map(({ x, predicted: p }) => ({ x, y: p!.estimate, lower: p!.lower, upper: p!.upper })),
      },
    ];
  });
  if (lines.length === 0) return null;
  const { p5, p95 } = ground.spreads.get(probe.focal)!;
  const name = `${title(ground.outcome)} predicted from ${title(probe.focal)}`;
  return (
    <div>
      <ChartFrame
        title={name}
        note={`by ${title(first!.variable)}${held.map((h) => `, ${title(h.variable)} ${moderatorPlaceName({ ...h, value: ground.spreads.has(h.variable) ? 0 : null }, title)}`).join("")}; n = ${formatCount(ground.n)}, pale where one in twenty lies`}
        table={
          <table className={ladders.table}>
            <caption className="visually-hidden">{name}</caption>
            <thead>
              <tr>
                <th scope="col">{title(probe.focal)}</th>
                {lines.map((one) => (
                  <th key={one.name} scope="col">
                    {one.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {[0, 8, 16, 24, 32].map((i) => (
                <tr key={i}>
                  <th scope="row">{formatNumber(lines[0]!.points[i]!.x)}</th>
                  {lines.map((one) => {
                    const p = one.points[i]!;
                    return (
                      <td key={one.name}>
                        {formatNumber(p.y)} {formatInterval(p.lower, p.upper, formatNumber)}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        }
      >
        <PredictedLines
          lines={lines}
          points={raw ? points : null}
          thick={[p5, p95]}
          title={name}
          axis={title(probe.focal)}
          outcome={title(ground.outcome)}
          format={formatValue}
        />
      </ChartFrame>
      {points && (
        <button type="button" className="link" aria-pressed={raw} onClick={() => setRaw(!raw)}>
          {raw ? "Hide the respondents" : "Show the respondents"}
        </button>
      )}
    </div>
  );
}

const BARS = 20;

function Along({ probe, reading, result, onMove, onRest }: Props) {
  const { title } = useStudy();
  const first = reading.along[0]!.along[0]!;
  const moderator = "moderator" in first ? first.moderator : null;
  const values = moderator === null ? undefined : result.sorted.get(moderator);
  const histogram = useMemo(() => (values ? bars(values) : null), [values]);
  if (moderator === null || !values || !histogram) return null;
  const [low, high] = [values[0]!, values[values.length - 1]!];
  const curves = reading.along.flatMap(({ place, along: [one] }) => {
    if (!one || "reason" in one) return [];
    const points = Array.from({ length: POINTS }, (_, i) => {
      const x = low + ((high - low) * i) / (POINTS - 1);
      return { x, ...effectAt(one, x) };
    });
    return [{ name: place.at.length === 0 ? title(probe.focal) : placeName(place, title), points }];
  });
  if (curves.length === 0) return null;
  const own = probe.moderators.find((m) => m.variable === moderator)!;
  const marks = [...new Map(reading.places.map(({ at }) => at.find((a) => a.variable === moderator)!).map((a) => [a.label, a])).values()];
  const move = (mark: number, to: number) => {
    const numbers = marks.map((m, i) => (i === mark ? to : m.value!));
    if (new Set(numbers).size !== numbers.length) return;
    onMove(probe.moderators.map((m) => (m === own ? { ...m, values: { by: "own", values: numbers } } : m)));
  };
  const name = `Slope of ${title(probe.focal)} along ${title(moderator)}`;
  const { sd } = result.ground.spreads.get(moderator)!;
  const unit = 10 ** Math.floor(Math.log10(sd / 5));
  const round = (v: number) => Math.round(v / unit) * unit;
  return (
    <div>
      <ChartFrame
        title={name}
        note={
          curves.length === 1
            ? "hatched where the band holds zero; drag a mark, or use the arrow keys"
            : "one line a place of the other; drag a mark, or use the arrow keys"
        }
        table={
          <table className={ladders.table}>
            <caption className="visually-hidden">{name}</caption>
            <thead>
              <tr>
                <th scope="col">{title(moderator)}</th>
                {curves.map((curve) => (
                  <th key={curve.name} scope="col">
                    {curve.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {[0, 8, 16, 24, 32].map((i) => (
                <tr key={i}>
                  <th scope="row">{formatNumber(curves[0]!.points[i]!.x)}</th>
                  {curves.map((curve) => (
                    <td key={curve.name}>
                      {formatNumber(curve.points[i]!.effect)} {formatInterval(curve.points[i]!.lower, curve.points[i]!.upper, formatNumber)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        }
      >
        <EffectAlongChart
          curves={curves}
          bounds={"bounds" in first ? first.bounds : []}
          histogram={histogram}
          marks={marks.map((m) => ({ name: moderatorPlaceName(m, title), value: m.value! }))}
          unit={unit}
          title={name}
          axis={title(moderator)}
          format={formatValue}
          onMove={(mark, to) => move(mark, Number(round(to).toPrecision(12)))}
          onRest={onRest}
        />
      </ChartFrame>
    </div>
  );
}

/** Bars over the observed range; of values on a grid, as those of a mean of items, as many steps of it each, so that no bar is empty by the way it is cut. */
function bars(sorted: Float64Array): { edges: number[]; counts: number[] } {
  const [low, high] = [sorted[0]!, sorted[sorted.length - 1]!];
  const distinct = [...new Set(sorted)];
  const step = distinct.slice(1).reduce((least, value, i) => Math.min(least, value - distinct[i]!), Infinity);
  const onGrid =
    distinct.length <= 200 && distinct.every((value) => Math.abs((value - low) / step - Math.round((value - low) / step)) < 1e-6);
  const width = onGrid ? step * Math.ceil((high - low) / step / BARS || 1) : (high - low) / BARS || 1;
  const from = onGrid ? low - step / 2 : low;
  const count = Math.max(1, Math.ceil((high - from) / width - 1e-9));
  const counts = Array.from({ length: count }, () => 0);
  for (const value of sorted) counts[Math.min(count - 1, Math.floor((value - from) / width + 1e-9))]!++;
  const within = (edge: number) => Math.max(low, Math.min(high, edge));
  return { edges: Array.from({ length: count + 1 }, (_, i) => within(from + i * width)), counts };
}

/** Predicted outcomes of two categories, a row a level of the moderator. */
function Cells({ probe, reading, result }: Props) {
  const { title } = useStudy();
  const { ground } = result;
  const rows = reading.places.map((place) => ({ place, cells: cellsAt(ground, probe.focal, place) }));
  return (
    <div className={ladders.scroll}>
      <table className={ladders.table} data-testid="cells">
        <caption className={css.caption}>
          {title(ground.outcome)}, predicted, with {Math.round(ground.confidence * 100)} % intervals
        </caption>
        <thead>
          <tr>
            <td />
            {rows[0]!.cells.map(({ level }) => (
              <th key={level} scope="col">
                {levelTitle(title, probe.focal, level)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ place, cells }) => (
            <tr key={place.key}>
              <th scope="row">{placeName(place, title)}</th>
              {cells.map(({ level, predicted }) => (
                <td key={level}>
                  {predicted === null ? (
                    <span className="quiet">nobody is here</span>
                  ) : (
                    <>
                      <b>{formatNumber(predicted.estimate)}</b>{" "}
                      <span className="quiet">{formatInterval(predicted.lower, predicted.upper, formatNumber)}</span>
                    </>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
