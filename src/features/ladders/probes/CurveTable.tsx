import { formatInterval, formatNumber } from "@/study/report/format-number";
import ladders from "../ladders.module.css";

export interface Curve {
  name: string;
  points: readonly { x: number; y: number; lower: number | null; upper: number | null }[];
}

/** Rows of a curve's table, ends included. */
const ROWS = 5;

/** The numbers behind curves over one axis, at equal distances. */
export function CurveTable({ title, axis, curves }: { title: string; axis: string; curves: readonly Curve[] }) {
  const last = curves[0]!.points.length - 1;
  return (
    <table className={ladders.table}>
      <caption className="visually-hidden">{title}</caption>
      <thead>
        <tr>
          <th scope="col">{axis}</th>
          {curves.map((curve) => (
            <th key={curve.name} scope="col">
              {curve.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: ROWS }, (_, i) => Math.round((last * i) / (ROWS - 1))).map((i) => (
          <tr key={i}>
            <th scope="row">{formatNumber(curves[0]!.points[i]!.x)}</th>
            {curves.map((curve) => {
              const { y, lower, upper } = curve.points[i]!;
              return (
                <td key={curve.name}>
                  {formatNumber(y)} {formatInterval(lower, upper, formatNumber)}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
