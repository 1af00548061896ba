import type { PointsSpec } from "../model/look";
import type { Analysis, Desk } from "../kinds/kind";
import { refusalOf } from "./refusal";

/** Numbers of the respondents that the filters keep; not a number where one is missing. */
export interface Points {
  /** Rows of the data, from 1. */
  readonly rows: Int32Array;
  readonly columns: ReadonlyMap<string, Float64Array>;
}

function pointsOf({ names, respondents }: PointsSpec, { columns, rows }: Desk): Points {
  const kept = columns.kept(rows, respondents);
  const used = Int32Array.from([...kept.keys()].filter((row) => kept[row] === 1));
  const found = names.flatMap((name): [string, Float64Array][] => {
    try {
      const { values, missing } = columns.numbers(name);
      return [[name, Float64Array.from(used, (row) => (missing[row] ? NaN : values[row]!))]];
    } catch (error) {
      void refusalOf(error); // what cannot be worked out is told in the table; a fault of ours passes on
      return [];
    }
  });
  return { rows: used.map((row) => row + 1), columns: new Map(found) };
}

export const analysis: Analysis<PointsSpec, PointsSpec, Points> = { run: pointsOf };
