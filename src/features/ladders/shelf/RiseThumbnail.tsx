import type { LadderFit } from "@/core/regression/ladder";
import { layoutRise } from "@/ui/charts/layout-rise";
import { stepColour } from "@/ui/theme/step-colours";
import css from "./shelf.module.css";

const [WIDTH, ROW] = [46, 5];

/** The rise of a ladder in small, to its own scale; the number stands beside it. */
export function RiseThumbnail({ fit }: { fit: LadderFit | null }) {
  if (!fit) return <span className={css.thumbnail} aria-hidden="true" />;
  const steps = fit.steps.slice(0, 6);
  const { bars } = layoutRise(
    steps.map((s) => ({ R2: s.model.R2, change: s.change.change })),
    WIDTH,
  );
  return (
    <svg className={css.thumbnail} aria-hidden="true" width={WIDTH} height={steps.length * ROW + 2}>
      <line x1={0.5} x2={0.5} y1={0} y2={steps.length * ROW + 2} stroke="var(--rule)" />
      {bars.map((bar, k) => (
        <g key={k}>
          <rect x={0} y={k * ROW + 1} width={bar.before} height={ROW - 1} fill="var(--rule)" />
          <rect x={bar.before} y={k * ROW + 1} width={Math.max(bar.added, 1)} height={ROW - 1} fill={stepColour(k)} />
        </g>
      ))}
    </svg>
  );
}
