"use client";

import { Button } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { MissingPattern } from "@/study/analyse/responses/missing-pattern";
import { byName } from "@/study/model/by-name";
import { counted, formatCount, formatNumber } from "@/study/report/format-number";
import { MissingPatternChart } from "@/ui/charts/MissingPatternChart";
import css from "./responses.module.css";

const AT_ONCE = 3_000_000;

/** Who left what open: shares by variable and by respondent, and the patterns in a picture. */
export function MissingSection({ onShow }: { onShow: (row: number) => void }) {
  const { study, dataset } = useStudy();
  const [asked, setAsked] = useState(dataset.rows * dataset.columns.length <= AT_ONCE);
  const names = study.codebook.filter((v) => v.kind !== "code" && v.kind !== "text" && !byName(study.derived, v.name)).map((v) => v.name);
  const pattern = useAsked("missing", { names }, { enabled: asked });
  return (
    <section id="missing" aria-label="Missing answers" className={css.section}>
      <h2>Missing answers</h2>
      {!asked && (
        <p>
          This is a large file. <Button onClick={() => setAsked(true)}>Count all missing answers</Button>
        </p>
      )}
      {pattern.fault && <p role="alert">{pattern.fault}</p>}
      {asked && pattern.computing && !pattern.result && (
        <p role="status">
          Counting …{" "}
          <button type="button" className="link" onClick={pattern.stop}>
            Stop
          </button>
        </p>
      )}
      {pattern.result && (
        <div className={pattern.outdated ? css.outdated : undefined}>
          <Pattern pattern={pattern.result} variables={names.length} onShow={onShow} />
        </div>
      )}
    </section>
  );
}

function Pattern({ pattern, variables, onShow }: { pattern: MissingPattern; variables: number; onShow: (row: number) => void }) {
  const { title } = useStudy();
  const { respondents } = pattern;
  const complete = pattern.gaps.find((g) => g.gaps === 0)?.respondents ?? 0;
  const share = (n: number) => `${formatNumber(respondents === 0 ? 0 : (100 * n) / respondents, 1)} %`;
  if (pattern.across.length === 0) return <p>No answer is missing: all {formatCount(respondents)} respondents answered everything.</p>;
  return (
    <>
      <p>
        {counted(complete, "respondent")} of {formatCount(respondents)} ({share(complete)}) answered all {variables} variables. Most often
        open:{" "}
        {pattern.across
          .slice(0, 5)
          .map((name) => `${title(name)} (${share(pattern.variables.find((v) => v.name === name)!.missing)})`)
          .join(", ")}
        .
      </p>
      <MissingPatternChart pattern={pattern} title={title} />
      {pattern.otherwise > 0 && <p className="quiet">{counted(pattern.otherwise, "further respondent")} with other patterns.</p>}
      <div className={css.twoTables}>
        <div className={css.tall} tabIndex={0} role="region" aria-label="Missing by variable">
          <table>
            <caption>Missing by variable</caption>
            <tbody>
              {[...pattern.variables]
                .sort((a, b) => b.missing - a.missing)
                .map((v) => (
                  <tr key={v.name}>
                    <th scope="row">{title(v.name)}</th>
                    <td>{formatCount(v.missing)}</td>
                    <td>{share(v.missing)}</td>
                  </tr>
                ))}
            </tbody>
          </table>
        </div>
        <div className={css.tall} tabIndex={0} role="region" aria-label="Respondents with the most open">
          <table>
            <caption>Respondents with the most open</caption>
            <tbody>
              {pattern.most.map((r) => (
                <tr key={r.row}>
                  <th scope="row">
                    <button type="button" className="link" onClick={() => onShow(r.row)}>
                      respondent {formatCount(r.row)}
                    </button>
                  </th>
                  <td>{r.gaps}</td>
                  <td>{formatNumber((100 * r.gaps) / variables, 0)} %</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
    </>
  );
}
