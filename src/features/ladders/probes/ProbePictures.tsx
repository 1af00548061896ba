"use client";

import { useState } from "react";
import { effectAt } from "@/core/regression/simple-effects";
import { useStudy } from "@/features/study/study-context";
import { useAxis } from "@/features/study/use-axis";
import type { ProbeResult } from "@/study/analyse/analyse-probe";
import { cellsAt, type ProbePlace, type ProbeReading } from "@/study/analyse/read-probe";
import type { Probe } from "@/study/model/probe";
import { formatCount, formatInterval, formatNumber, formatValue } from "@/study/report/format-number";
import { distinctPlaces, probeLines } from "@/study/report/ladder/probe-pictures";
import { moderatorPlaceName, placeName } from "@/study/report/ladder/probe-words";
import { levelTitle } from "@/study/report/level-title";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { EffectAlongChart } from "@/ui/charts/EffectAlongChart";
import { GroupsChart } from "@/ui/charts/GroupsChart";
import { MeansChart } from "@/ui/charts/MeansChart";
import { PredictedLines } from "@/ui/charts/PredictedLines";
import ladders from "../ladders.module.css";
import { CurveTable } from "./CurveTable";
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
  return (
    <div className={css.pictures}>
      {!props.result.ground.spreads.has(props.probe.focal) ? <Cells {...props} /> : <Lines {...props} />}
      {props.reading.along.length > 0 && props.reading.effects.length === 1 && <Along {...props} />}
    </div>
  );
}

const POINTS = 33;

function Lines({ probe, reading, result }: Props) {
  const { title } = useStudy();
  const axis = useAxis();
  const [raw, setRaw] = useState(false);
  const { ground, points } = result;
  const picture = probeLines(probe, reading, result, title);
  if (!picture) return null;
  const { title: name, lines } = picture;
  return (
    <div>
      <ChartFrame title={name} note={picture.note} table={<CurveTable title={name} axis={axis(probe.focal)} curves={lines} />}>
        <PredictedLines
          lines={lines}
          points={raw ? points : null}
          thick={picture.thick}
          title={name}
          axis={axis(probe.focal)}
          outcome={axis(ground.outcome)}
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

function Along({ probe, reading, result, onMove, onRest }: Props) {
  const { title } = useStudy();
  const axis = useAxis();
  const told = reading.along.flatMap(({ place, along: [one] }) => (one && "moderator" in one ? [{ place, one }] : []));
  if (told.length === 0) return null;
  const { moderator, sd, bounds } = told[0]!.one;
  const { sorted, histogram } = result.numbers.get(moderator)!;
  const [low, high] = [sorted[0]!, sorted[sorted.length - 1]!];
  const curves = told.map(({ place, one }) => ({
    name: place.at.length === 0 ? title(probe.focal) : placeName(place, title),
    points: Array.from({ length: POINTS }, (_, i) => {
      const x = low + ((high - low) * i) / (POINTS - 1);
      return { x, ...effectAt(one, x) };
    }),
  }));
  const inside = bounds.filter((bound) => bound > low && bound < high);
  const cuts = [low, ...inside, high];
  const unsure = cuts.slice(1).flatMap((to, i) => {
    const middle = effectAt(told[0]!.one, (cuts[i]! + to) / 2);
    return middle.lower <= 0 && middle.upper >= 0 ? [{ from: cuts[i]!, to }] : [];
  });
  const own = probe.moderators.find((m) => m.variable === moderator)!;
  const marks = distinctPlaces(reading, moderator);
  const unit = 10 ** Math.floor(Math.log10(sd / 5));
  /** Marks rest on round values. */
  const move = (mark: number, to: number) => {
    const round = Number((Math.round(to / unit) * unit).toPrecision(12));
    const numbers = marks.map((m, i) => (i === mark ? round : m.value!));
    if (new Set(numbers).size !== numbers.length) return;
    onMove(probe.moderators.map((m) => (m === own ? { ...m, values: { by: "own", values: numbers } } : m)));
  };
  const name = `Slope of ${title(probe.focal)} along ${title(moderator)}`;
  return (
    <ChartFrame
      title={name}
      note={`${curves.length === 1 ? "hatched where the band holds zero" : "one line a place of the other"}; drag a mark, or use the arrow keys`}
      table={<CurveTable title={name} axis={axis(moderator)} curves={curves} />}
    >
      <EffectAlongChart
        curves={curves}
        bounds={inside}
        unsure={unsure}
        histogram={histogram}
        marks={marks.map((m) => ({ name: moderatorPlaceName(m, title), value: m.value! }))}
        unit={unit}
        title={name}
        axis={axis(moderator)}
        format={formatValue}
        onMove={move}
        onRest={onRest}
      />
    </ChartFrame>
  );
}

/** More levels than this are rows themselves. */
const MOST_MARKS = 6;

/** Predicted outcomes of two categories: a row a level of the moderator, a mark a level of the other, and between its marks the simple effect, thick where it holds. */
function Cells({ probe, reading, result }: Props) {
  const { title } = useStudy();
  const axis = useAxis();
  const { ground } = result;
  const rows = reading.places.map((place) => ({ place, cells: cellsAt(ground, probe.focal, place) }));
  const levels = rows[0]!.cells.map(({ level }) => level);
  const alpha = 1 - ground.confidence;
  const name = `${title(ground.outcome)} predicted for ${title(probe.focal)} by ${probe.moderators.map((m) => title(m.variable)).join(" and ")}`;
  // the surest simple effect of each row
  const spans = reading.places.map((_, i) => {
    const tested = reading.effects.flatMap((effect, e) => {
      const p = reading.found[i]![e]?.p;
      return "level" in effect && p != null ? [{ effect, p }] : [];
    });
    const surest = tested.sort((a, b) => a.p - b.p)[0];
    return surest
      ? { first: levels.indexOf(surest.effect.level), second: levels.indexOf(surest.effect.minus), told: surest.p < alpha }
      : null;
  });
  return (
    <div>
      <ChartFrame
        title={name}
        note={`n = ${formatCount(ground.n)}, ${Math.round(ground.confidence * 100)} % intervals; ${levels.length > MOST_MARKS ? "filled where it can be told from the reference" : "thick where the difference in the row can be told from zero"}`}
        table={<CellTable name={name} probe={probe} rows={rows} />}
      >
        {levels.length > MOST_MARKS ? (
          <MeansChart
            rows={levels.map((level, l) => ({
              name: levelTitle(title, probe.focal, level),
              marks: rows.flatMap(({ place, cells }, i) => {
                const p = cells[l]!.predicted;
                const told = reading.effects.some(
                  (effect, e) => "level" in effect && effect.level === level && (reading.found[i]![e]?.p ?? 1) < alpha,
                );
                return p ? [{ series: placeName(place, title), value: p.estimate, lower: p.lower, upper: p.upper, told }] : [];
              }),
            }))}
            series={rows.map(({ place }) => placeName(place, title))}
            line={null}
            title={name}
            axis={axis(ground.outcome)}
            format={formatValue}
          />
        ) : (
          <GroupsChart
            rows={rows.map(({ place, cells }, i) => ({
              name: placeName(place, title),
              marks: cells.map(({ predicted: p }) => p && { value: p.estimate, lower: p.lower, upper: p.upper }),
              span: spans[i]!,
            }))}
            groups={levels.map((level) => levelTitle(title, probe.focal, level))}
            named={0}
            title={name}
            axis={axis(ground.outcome)}
            zero={false}
            format={formatValue}
          />
        )}
      </ChartFrame>
    </div>
  );
}

function CellTable({
  name,
  probe,
  rows,
}: {
  name: string;
  probe: Probe;
  rows: { place: ProbePlace; cells: ReturnType<typeof cellsAt> }[];
}) {
  const { title } = useStudy();
  return (
    <div className={ladders.scroll}>
      <table className={ladders.table} data-testid="cells">
        <caption className="visually-hidden">{name}</caption>
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
