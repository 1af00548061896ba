import type { ReactNode } from "react";
import type { Drawn } from "./use-replicates";
import { formatCount } from "@/study/report/format-number";
import css from "./drawn.module.css";

/** How far something that is drawn many times is, and a way to stop or go on. */
export function DrawnState(props: { drawn: Drawn; noun: string; stopped: string; whole: ReactNode; testId: string }) {
  const { drawn, noun } = props;
  const { progress, computing, fault } = drawn;
  if (!progress) return null;
  const { done, of } = progress;
  const left = computing ? drawn.secondsLeft : null;
  return (
    <p className={css.replicates} role="status" data-testid={props.testId} data-done={!computing && done === of}>
      {fault ? (
        <>
          {fault}{" "}
          <button type="button" className="link" onClick={drawn.again}>
            Draw them again
          </button>
        </>
      ) : computing ? (
        <>
          {/* first, so that it stays where it is while the numbers beside it grow */}
          <button type="button" className="link" onClick={drawn.stop}>
            Stop
          </button>{" "}
          <progress value={done} max={Math.max(1, of)} aria-label={`Drawn ${noun}`} /> {formatCount(done)} of {formatCount(of)} {noun}
          {left !== null && `, about ${left} s left`}
        </>
      ) : done < of || of === 0 ? (
        <>
          {props.stopped}{" "}
          <button type="button" className="link" onClick={drawn.again}>
            Draw all
          </button>
        </>
      ) : (
        <>{props.whole}</>
      )}
    </p>
  );
}
