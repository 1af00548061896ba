import { Said } from "@/ui/parts/Said";
import { useStudy } from "@/features/study/study-context";
import { pairsAbove, pairsOf } from "@/core/describe/correlation-facts";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { formatCount, formatNumber, pStatement, formatShare } from "@/study/report/format-number";
import css from "./scales.module.css";

/** Who is in, and whether these items may be factored. */
export function StructureFit({ analysis }: { analysis: StructureAnalysis }) {
  const { title } = useStudy();
  const { adequacy, sphericity } = analysis;
  const k = analysis.items.length;
  const low = adequacy ? analysis.items.map((item, i) => ({ item, msa: adequacy.perItem[i]! })).sort((a, b) => a.msa - b.msa) : [];
  return (
    <section id="fit" className={`${css.part} ${css.figures}`}>
      <div>
        <div className={css.figure}>
          <span data-testid="kmo">{formatShare(adequacy?.overall ?? null)}</span>
        </div>
        <div className={css.figureNote}>
          sampling adequacy
          <br />
          {low.length > 0 && (
            <details className={css.inline}>
              <summary>
                lowest {title(low[0]!.item)} {formatShare(low[0]!.msa)}, each item
              </summary>
              <table className={css.tiny}>
                <caption className="visually-hidden">Sampling adequacy of each item</caption>
                <tbody>
                  {low.map(({ item, msa }) => (
                    <tr key={item}>
                      <th scope="row">{title(item)}</th>
                      <td>{formatShare(msa)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </details>
          )}
        </div>
      </div>
      <div>
        <div className={css.figure} data-testid="sphericity">
          {sphericity ? formatNumber(sphericity.chi2) : "–"}
        </div>
        <div className={css.figureNote}>
          Bartlett&rsquo;s χ²({pairsOf(analysis.items.length)})
          <br />
          {sphericity ? <Said>{pStatement(sphericity.p)}</Said> : "not available"}
        </div>
      </div>
      <div>
        <div className={css.figure} data-testid="above">
          {formatCount(pairsAbove(analysis.correlations, analysis.items.length, 0.3))}{" "}
          <small>of {formatCount(pairsOf(analysis.items.length))}</small>
        </div>
        <div className={css.figureNote}>
          correlations above .3
          <br />
          in size
        </div>
      </div>
      <div>
        <div className={css.figure}>
          <span data-testid="complete">{formatCount(analysis.n)}</span> <small>of {formatCount(analysis.rows)}</small>
        </div>
        <div className={css.figureNote}>
          respondents answered all {k}
          <br />
          {mostMissing(analysis, title)}
        </div>
      </div>
    </section>
  );
}

function mostMissing({ missing }: StructureAnalysis, title: (name: string) => string): string {
  const [most] = [...missing].sort((a, b) => b.count - a.count);
  return !most || most.count === 0 ? "nobody left anything open" : `most often open: ${title(most.item)}, ${formatCount(most.count)}`;
}
