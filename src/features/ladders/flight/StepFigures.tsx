import { Said } from "@/ui/parts/Said";
import type { StepFit } from "@/core/regression/ladder";
import { formatInterval, formatNumber, pStatement, formatShare } from "@/study/report/format-number";
import type { RiseBar as Layout } from "@/ui/charts/layout-rise";
import { RiseBar } from "@/ui/charts/RiseBar";
import page from "@/ui/parts/page.module.css";
import { stepColour } from "@/ui/theme/step-colours";
import css from "./flight.module.css";

/** The figures of one step: the rise to scale with the interval of what it adds, R², ΔR², and its test. */
export function StepFigures(props: {
  numbers: StepFit;
  bar: Layout;
  width: number;
  step: number;
  last: boolean;
  outdated: boolean;
  adjusted: boolean;
  percent: string;
}) {
  const { numbers, step } = props;
  const { model, change, changeInterval: interval } = numbers;
  const dim = props.outdated ? page.outdated : "";
  const share = (v: number | null) => formatShare(v, 3);
  const between = interval ? formatInterval(interval.lower, interval.upper, share) : null;
  return (
    <>
      <div
        className={`${css.rise} ${dim}`}
        title={between ? `ΔR² ${share(change.change)}, ${props.percent} interval ${between}` : undefined}
      >
        <RiseBar
          bar={props.bar}
          width={props.width}
          height={52}
          colour={stepColour(step)}
          last={props.last}
          label={`Step ${step + 1} raises R² by ${share(change.change)} to ${share(model.R2)}${between ? `, ${props.percent} interval of the rise ${between}` : ""}`}
        />
      </div>
      <div className={`${css.share} ${dim}`}>
        <i>R</i>² <span data-testid="r2">{share(model.R2)}</span>
        {props.adjusted && (
          <>
            <br />
            <span className="quiet">
              adj. <span data-testid="adjusted-r2">{share(model.adjustedR2)}</span>
            </span>
          </>
        )}
        <br />
        <b>
          Δ<i>R</i>² <span data-testid="delta-r2">{share(change.change)}</span>
        </b>
      </div>
      <div className={`${css.test} ${dim}`}>
        {change.F === null ? (
          <span className="quiet">{change.df[0] === 0 ? "adds no column" : "no test: see Watch"}</span>
        ) : (
          <>
            <i>F</i>({change.df[0]}, {change.df[1]}) = {formatNumber(change.F)}
            <br />
            <Said>{pStatement(change.p)}</Said>
          </>
        )}
      </div>
    </>
  );
}
