import { correlationGround } from "./correlation-ground";
import css from "./correlation-table.module.css";

/**
 * Correlations as a table, heavier grounds for stronger ones: plum for those that run together, pine (and a minus) for those that run apart. The lower
 * triangle; row and column heads stay in view.
 */
export function CorrelationTable(props: {
  caption: string;
  names: readonly string[];
  /** Full wording of each, for pointing at. */
  wording: (place: number) => string;
  /** r of row i and column j; null where an item does not vary. */
  r: (i: number, j: number) => number | null;
  format: (r: number | null) => string;
}) {
  const { names, r, format } = props;
  return (
    <div className={css.scroll} tabIndex={0} role="group" aria-label={`${props.caption}, can be scrolled`}>
      <table className={css.table}>
        <caption className="visually-hidden">{props.caption}</caption>
        <thead>
          <tr>
            <td />
            {names.slice(0, -1).map((name, j) => (
              <th key={j} scope="col" title={props.wording(j)}>
                <span>{name}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {names.slice(1).map((name, above) => {
            const i = above + 1;
            return (
              <tr key={i}>
                <th scope="row" title={props.wording(i)}>
                  {name}
                </th>
                {names.slice(0, i).map((other, j) => (
                  <td key={j} style={{ background: correlationGround(r(i, j)) }} title={`${name} with ${other}: ${format(r(i, j))}`}>
                    {format(r(i, j))}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
