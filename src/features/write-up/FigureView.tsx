import type { ReactElement } from "react";
import type { Drawing } from "@/study/report/document/figures";
import { drawnFormat } from "@/study/report/document/figures";
import { GroupsChart } from "@/ui/charts/GroupsChart";
import { MeansChart } from "@/ui/charts/MeansChart";
import { PredictedLines } from "@/ui/charts/PredictedLines";
import { TheoryLoom } from "@/ui/charts/TheoryLoom";

/** A figure of the write-up as the chart that draws it; the same on the page and in files. */
export function chartOf(drawing: Drawing): ReactElement {
  const format = drawnFormat(drawing);
  switch (drawing.chart) {
    case "lines": {
      const { lines, thick, title } = drawing.picture;
      return <PredictedLines lines={lines} points={null} thick={thick} title={title} axis={drawing.axis} outcome={drawing.outcome} format={format} />; // prettier-ignore
    }
    case "means": {
      const { rows, series, title } = drawing.picture;
      return <MeansChart rows={rows} series={series} line={null} title={title} axis={drawing.axis} format={format} />;
    }
    case "groups": {
      const { rows, groups, named, title } = drawing.picture;
      return <GroupsChart rows={rows} groups={groups} named={named} title={title} axis={drawing.axis} zero format={format} />;
    }
    case "theory":
      return <TheoryLoom title={drawing.title} picture={drawing.picture} />;
  }
}
