"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { FactorSolution } from "@/core/factors/factor-solution";
import { loadingsCsv } from "@/files/loadings-csv";
import { tableAsHtml } from "@/files/table-html";
import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import { itemPlaces, sortedPlaces } from "@/study/analyse/factor-places";
import type { Structure } from "@/study/model/structure";
import { formatShare } from "@/study/report/format-number";
import { loadingsTable } from "@/study/report/loadings-table";
import { loadingsName, placeWords } from "@/study/report/structure-words";
import page from "@/ui/parts/page.module.css";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { SettingWord } from "@/ui/parts/SettingWord";
import css from "./scales.module.css";

type Shown = "read" | "structure" | "unrotated";

const THRESHOLDS = [0, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5];

/** The one table of loadings that is to be read; the others on request, each saying what it is. */
export function LoadingsTable(props: {
  structure: Structure;
  analysis: StructureAnalysis;
  solution: FactorSolution;
  onChange: (structure: Structure) => void;
}) {
  const { study, title } = useStudy();
  const { structure, analysis, solution, onChange } = props;
  const [asked, setAsked] = useState<Shown>("read");
  const { factors: m, rotated } = solution;
  const oblique = rotated.correlations !== null;
  const turned = m > 1 && structure.rotation !== "none";
  const shown: Shown = (asked === "structure" && !oblique) || (asked === "unrotated" && !turned) ? "read" : asked;
  const name = loadingsName(solution);
  const names: Record<Shown, string> = { read: name.toLowerCase(), structure: "structure correlations", unrotated: "unrotated loadings" };
  const matrix = shown === "read" ? rotated.pattern : shown === "structure" ? solution.structure : solution.unrotated.pattern;
  const places = itemPlaces(analysis.items, rotated.pattern, m, structure.dimBelow);
  const rows = structure.sorted ? sortedPlaces(places) : places;
  const scaleOf = (item: string) => study.scales.filter((s) => s.items.some((i) => i.variable === item)).map((s) => s.name);
  const table = () => loadingsTable(structure, analysis, solution, title);
  return (
    <>
      <div className={css.tableHead}>
        <h2 className={page.heading}>
          {shown === "read" ? name : names[shown].replace(/^./, (c) => c.toUpperCase())}{" "}
          <small className="quiet">{READING[shown === "read" ? (oblique ? "pattern" : turned ? "rotated" : "plain") : shown]}</small>
        </h2>
        <p className={css.settings}>
          {turned && (
            <>
              Showing{" "}
              <SettingWord
                label="Loadings shown"
                value={shown}
                text={names[shown]}
                choices={[
                  { value: "read", label: `${names.read}: the ones to read` },
                  ...(oblique ? [{ value: "structure", label: names.structure }] : []),
                  { value: "unrotated", label: names.unrotated },
                ]}
                onChange={(value) => setAsked(value as Shown)}
              />
              ,{" "}
            </>
          )}
          <SettingWord
            label="Order of the items"
            value={structure.sorted ? "factor" : "own"}
            text={structure.sorted ? "sorted by factor" : "in their own order"}
            choices={[
              { value: "factor", label: "sorted by factor" },
              { value: "own", label: "in their own order" },
            ]}
            onChange={(value) => onChange({ ...structure, sorted: value === "factor" })}
          />
          , dimmed below{" "}
          <SettingWord
            label="Dimmed below"
            value={String(structure.dimBelow)}
            text={formatShare(structure.dimBelow)}
            choices={THRESHOLDS.map((t) => ({ value: String(t), label: t === 0 ? "0: none dimmed" : formatShare(t) }))}
            onChange={(value) => onChange({ ...structure, dimBelow: Number(value) })}
          />
        </p>
      </div>
      <div className={css.scroll}>
        <table className={`${css.table} ${css.loadings}`} data-testid="loadings">
          <caption className="visually-hidden">
            {shown === "read" ? name : names[shown]} of {analysis.items.length} items on {m} factors
          </caption>
          <thead>
            <tr>
              <th scope="col" colSpan={2}>
                Item
              </th>
              {Array.from({ length: m }, (_, f) => (
                <th key={f} scope="col" className={css.number}>
                  {f + 1}
                </th>
              ))}
              <th scope="col" className={css.number} title="Communality before the extraction">
                <i>h</i>² before
              </th>
              <th scope="col" className={css.number} title="Communality: the share of the item that the factors explain">
                after
              </th>
              <th scope="col">In scale</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((place, row) => {
              const i = analysis.items.indexOf(place.item);
              const heywood = solution.heywood.includes(i);
              const begins = structure.sorted && row > 0 && rows[row - 1]!.factor !== place.factor;
              return (
                <tr
                  key={place.item}
                  className={begins ? css.begins : undefined}
                  data-testid={`loading ${place.item}`}
                  title={`${title(place.item)}: ${placeWords(place)}`}
                >
                  <th scope="row">{title(place.item)}</th>
                  <td className={css.wording}>{study.codebook.find((v) => v.name === place.item)?.label}</td>
                  {Array.from({ length: m }, (_, f) => {
                    const value = matrix[i * m + f]!;
                    const cross = shown === "read" && place.cross.includes(f);
                    const looks = Math.abs(value) < structure.dimBelow ? css.dim : shown === "read" && place.factor === f ? css.main : "";
                    return (
                      <td key={f} className={`${css.number} ${looks}`}>
                        {cross && (
                          <span className={css.cross} title="A second factor it loads on" aria-label="cross-loading">
                            +
                          </span>
                        )}
                        {formatShare(value)}
                      </td>
                    );
                  })}
                  <td className={css.number}>{formatShare(solution.communalityInitial[i]!)}</td>
                  <td className={`${css.number} ${heywood ? css.suspect : ""}`}>{formatShare(solution.communalityExtracted[i]!)}</td>
                  <td className={css.inScale}>
                    {scaleOf(place.item).join(", ")}
                    {analysis.reversed.includes(place.item) && <small className="quiet"> turned round</small>}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className={css.tableNote}>
        {structure.dimBelow > 0 && "+ marks a second factor that an item loads on. "}
        {solution.heywood.length > 0 && "A communality in rust is a Heywood case. "}
        Save these loadings as{" "}
        <button
          type="button"
          className="link"
          onClick={() => saveFile(fileName(structure.name, "csv"), "text/csv", loadingsCsv(analysis, solution))}
        >
          CSV
        </button>{" "}
        (full precision) or{" "}
        <button
          type="button"
          className="link"
          onClick={() => saveFile(fileName(structure.name, "html"), "text/html", tableAsHtml(table()))}
        >
          HTML
        </button>{" "}
        (as a journal prints it).
      </p>
    </>
  );
}

const READING = {
  pattern: "what each factor adds to an item beyond the others; the table to read for factors that correlate",
  rotated: "correlations of the items with factors held apart; the table to read",
  plain: "correlations of the items with the factors as extracted",
  structure: "correlations of items with factors, what correlated factors share included; not the table to read",
  unrotated: "as extracted, before turning; not the table to read",
};
