"use client";

import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Groups } from "@/study/model/groups";
import { formatCount, formatInterval, formatPercent } from "@/study/report/format-number";
import { columnTitle } from "@/study/report/ladder/coefficient-words";
import { drawnGroups, groupsPicture } from "@/study/report/ladder/groups-picture";
import { type Compared, commonSlope, groupsRows, type GroupsBeside } from "@/study/report/ladder/groups-rows";
import { differsMost, groupName, METRIC_WORDS, printIn } from "@/study/report/ladder/groups-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { GroupsChart } from "@/ui/charts/GroupsChart";
import { MeansChart } from "@/ui/charts/MeansChart";
import { SettingWord } from "@/ui/parts/SettingWord";
import ladders from "../ladders.module.css";

/** So many groups have a mark each in a row; more are rows themselves. */
const MOST_MARKS = 6;

/** Slopes of groups beside each other. Slopes in points have no axis in common, so that they are drawn in SDs of all. */
export function GroupsPicture({ groups, result, beside }: { groups: Groups; result: Compared; beside: GroupsBeside }) {
  const { title } = useStudy();
  const { groups: drawn, more } = drawnGroups(groups);
  return result.groups.length > MOST_MARKS ? (
    <ManyGroups groups={drawn} result={result} beside={beside} />
  ) : (
    <FewGroups groups={drawn} result={result} beside={beside} more={more} title={title} />
  );
}

interface Shown {
  groups: Groups;
  result: Compared;
  beside: GroupsBeside;
}

function FewGroups({ groups, result, beside, more, title }: Shown & { more: string; title: ReturnType<typeof useStudy>["title"] }) {
  const picture = groupsPicture(groups, result, beside, title, more);
  return (
    <ChartFrame
      title={picture.title}
      note={picture.note}
      table={<SlopesOfGroups groups={groups} result={result} beside={beside} caption={picture.title} />}
    >
      <GroupsChart
        rows={picture.rows}
        groups={picture.groups}
        named={picture.named}
        title={picture.title}
        axis={METRIC_WORDS[groups.metric]}
        zero
        format={printIn(groups.metric)}
      />
    </ChartFrame>
  );
}

/** Groups as rows, one term at a time, in the order of their slopes. */
function ManyGroups({ groups, result, beside }: Shown) {
  const { title } = useStudy();
  const [chosen, setChosen] = useState<string | null>(null);
  const print = printIn(groups.metric);
  const rows = groupsRows(result, groups.metric, beside, title);
  const row = rows.find((r) => r.column === (chosen ?? differsMost(groups, result, beside, title))) ?? rows[0]!;
  const common = commonSlope(row.found);
  const order = [...row.found.keys()].filter((g) => row.found[g] !== null).sort((a, b) => row.found[b]!.estimate - row.found[a]!.estimate);
  const name = `Slope of ${row.name} by groups of ${title(groups.variable)}`;
  return (
    <>
      <p className={ladders.question}>
        Groups in the order of the slope of{" "}
        <SettingWord
          label="Term whose slopes are drawn"
          value={row.column}
          text={row.name}
          choices={result.columns.map(({ column }) => ({ value: column, label: columnTitle(column, result, title) }))}
          onChange={setChosen}
        />
      </p>
      <ChartFrame
        title={name}
        note={`n = ${formatCount(result.groups.reduce((sum, g) => sum + g.cases, 0))}, ${formatPercent(result.confidence)} intervals; filled where the interval leaves out the common slope, to which groups count by their precision`}
        table={<SlopesOfGroups groups={groups} result={result} beside={beside} caption={name} />}
      >
        <MeansChart
          rows={order.map((g) => {
            const e = row.found[g]!;
            const told = common !== null && e.lower !== null && e.upper !== null && (e.lower > common || e.upper < common);
            return { name: `${groupName(result.groups[g]!.levels, groups.variable, title)}`, marks: [{ series: "", value: e.estimate, lower: e.lower, upper: e.upper, told }] }; // prettier-ignore
          })}
          series={[""]}
          line={common === null ? null : { value: common, name: "common slope" }}
          title={name}
          axis={METRIC_WORDS[groups.metric]}
          format={print}
          tick={print}
        />
      </ChartFrame>
    </>
  );
}

/** The numbers behind the picture. */
function SlopesOfGroups({ groups, result, beside, caption }: Shown & { caption: string }) {
  const { title } = useStudy();
  const print = printIn(groups.metric);
  const rows = groupsRows(result, groups.metric, beside, title);
  return (
    <div className={ladders.scroll} tabIndex={0} role="group" aria-label={`${caption}, can be scrolled`}>
      <table className={ladders.table}>
        <caption className="visually-hidden">{caption}</caption>
        <thead>
          <tr>
            <th scope="col">term</th>
            {result.groups.map((g) => (
              <th key={g.name} scope="col">
                {groupName(g.levels, groups.variable, title)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.column}>
              <th scope="row">{row.name}</th>
              {row.found.map((e, g) => (
                <td key={g}>{e ? `${print(e.estimate)} ${formatInterval(e.lower, e.upper, print)}` : "–"}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
