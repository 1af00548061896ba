"use client";

import { type ReactElement, type ReactNode, useState } from "react";
import { fileName } from "@/ui/parts/save-file";
import css from "./chart-frame.module.css";
import { saveAsPng, saveAsSvg } from "./save-chart";

/**
 * A chart with its title, its numbers as a table, and the ways to save it.
 * @param props.saved what is saved, where the chart itself is more than a drawing
 */
export function ChartFrame(props: { title: string; note: string; children: ReactElement; table: ReactNode; saved?: ReactElement }) {
  const [asTable, setAsTable] = useState(false);
  const [fault, setFault] = useState(false);
  const save = (how: (chart: ReactElement, name: string) => Promise<void>, ending: string) => {
    setFault(false);
    how(props.saved ?? props.children, fileName(props.title, ending)).catch(() => setFault(true));
  };
  return (
    <figure className={css.figure} aria-label={props.title}>
      <figcaption>
        <b>{props.title}</b> <span className="quiet">{props.note}</span>
      </figcaption>
      <div hidden={asTable} tabIndex={0} role="group" aria-label={`${props.title}, picture`}>
        {props.children}
      </div>
      {asTable && props.table}
      <p className={css.ways}>
        <button type="button" className="link" aria-pressed={asTable} onClick={() => setAsTable(!asTable)}>
          {asTable ? "As a picture" : "As a table"}
        </button>
        {!asTable && (
          <>
            {" · "}
            <button type="button" className="link" onClick={() => save(saveAsSvg, "svg")}>
              Save SVG
            </button>
            {" · "}
            <button type="button" className="link" onClick={() => save(saveAsPng, "png")}>
              Save PNG
            </button>
          </>
        )}
        {fault && <span role="alert"> The picture could not be saved. Nothing was changed.</span>}
      </p>
    </figure>
  );
}
