import type { ScaleAnalysis } from "@/study/analyse/analyse-scale";
import { formatCount, formatInterval, formatMean, formatNumber, formatShare } from "@/study/report/format-number";
import { ScoreHistogram } from "@/ui/charts/ScoreHistogram";
import css from "./scales.module.css";

/** The few numbers a scale is known by: reliability by two roads, who is scored, what the scores look like. */
export function ScaleFigures({ analysis, name }: { analysis: ScaleAnalysis; name: string }) {
  const { description: d, histogram } = analysis;
  const { alpha: r, factor } = analysis.reliability;
  return (
    <div className={css.figures}>
      {r && (
        <div>
          <div className={css.figure}>
            α <span data-testid="alpha">{formatShare(r.alpha)}</span>
          </div>
          <div className={css.figureNote}>
            {formatInterval(r.lower, r.upper, formatShare)}
            <br />
            standardized <span data-testid="alpha-standardized">{formatShare(r.standardizedAlpha)}</span> · mean <i>r</i>{" "}
            {formatShare(r.meanInterItemR)} · <i>n</i> {formatCount(r.n)}
          </div>
        </div>
      )}
      {r?.spearmanBrown != null && (
        <div>
          <div className={css.figure} data-testid="spearman-brown">
            {formatShare(r.spearmanBrown)}
          </div>
          <div className={css.figureNote}>
            Spearman–Brown,
            <br />
            of two items
          </div>
        </div>
      )}
      {factor && (
        <div>
          <div className={css.figure}>
            ω <span data-testid="omega">{formatShare(factor.omega)}</span>
          </div>
          <div className={css.figureNote}>
            composite reliability <span data-testid="composite">{formatShare(factor.compositeReliability)}</span>
            <br />
            average variance extracted <span data-testid="ave">{formatShare(factor.averageVarianceExtracted)}</span>
          </div>
        </div>
      )}
      <div>
        <div className={css.figure}>
          <span data-testid="scored">{formatCount(d.n)}</span> <small>of {formatCount(analysis.rows)}</small>
        </div>
        <div className={css.figureNote}>
          scored, <span data-testid="prorated">{formatCount(analysis.prorated)}</span> from fewer answers, {formatCount(analysis.unscored)}{" "}
          not
          <br />
          <i>M</i> {formatMean(d.mean, d.sd)}, <i>SD</i> {formatNumber(d.sd)}, skewness {formatShare(d.skewness)}
        </div>
      </div>
      {histogram && (
        <ScoreHistogram
          histogram={histogram}
          width={150}
          height={72}
          title={name}
          n={d.n}
          format={(v) => formatNumber(v, Number.isInteger(v) ? 0 : 1)}
        />
      )}
    </div>
  );
}
