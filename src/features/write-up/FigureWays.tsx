"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { BlockOf } from "@/study/model/block";
import { FIGURES } from "@/study/report/document/figures";
import type { Source } from "@/study/report/document/source";
import { saveAsPng, saveAsSvg } from "@/ui/charts/save-chart";
import { Note } from "@/ui/parts/Margin";
import { fileName } from "@/ui/parts/save-file";
import { chartOf } from "./FigureView";
import css from "./write-up.module.css";

/** A figure as a file of its own. */
export function FigureWays({ what, name, source }: { what: BlockOf<"figure">; name: string; source: Source }) {
  const { study } = useStudy();
  const [fault, setFault] = useState(false);
  const save = (how: typeof saveAsSvg, ending: string) => {
    const now = FIGURES[what.of.kind].draw(what.of, source);
    if (!now) return setFault(true);
    setFault(false);
    how(chartOf(now.drawing), fileName(`${study.name} ${name}`, ending)).catch(() => setFault(true));
  };
  return (
    <Note heading="Take it along">
      <p className={css.acts}>
        <button type="button" className="link" onClick={() => save(saveAsSvg, "svg")}>
          Save SVG
        </button>
        <button type="button" className="link" onClick={() => save(saveAsPng, "png")}>
          Save PNG
        </button>
      </p>
      {fault && <p role="alert">The picture could not be saved. Nothing was changed.</p>}
    </Note>
  );
}
