"use client";

import Link from "next/link";
import { columnKey } from "@/core/regression/terms";
import { filterWithout } from "@/features/study/filter-without";
import { LeaveOut } from "@/features/study/LeaveOut";
import { MOST_ROWS, rowsAddress } from "@/features/study/rows-address";
import { useStudy } from "@/features/study/study-context";
import type { WithoutPullers } from "@/study/analyse/without-pullers";
import type { Refusal } from "@/study/analyse/refusal";
import type { ColumnParts } from "@/study/model/column-parts";
import type { Residuals } from "@/study/model/residuals";
import type { Ladder } from "@/study/model/ladder";
import { formatNumber, formatShare } from "@/study/report/format-number";
import { refusalWords } from "@/study/report/refusals";
import { partsTitle } from "@/study/report/ladder/coefficient-words";
import { pullersWords, whatWithoutSays, withoutTable } from "@/study/report/ladder/without-words";
import { plain } from "@/study/report/words";
import { withoutCsv } from "@/files/without-csv";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { SaveAs } from "@/ui/parts/SaveAs";
import { SettingWord } from "@/ui/parts/SettingWord";
import { Said } from "@/ui/parts/Said";
import { useSaveTable } from "../exploratory";
import ladders from "../ladders.module.css";
import css from "./probes.module.css";

/** What if those who pull most were not in: side by side, and left out only with a reason. */
export function WithoutThem(props: {
  without: WithoutPullers | { refusal: Refusal } | null;
  residuals: Residuals;
  ladder: Ladder;
  /** Columns with a coefficient in the step. */
  columns: readonly ColumnParts[];
}) {
  const { store, title } = useStudy();
  const { without, residuals, ladder, columns } = props;
  const { pulls } = residuals;
  const key = pulls.by === "coefficient" ? `b ${columnKey(pulls.column)}` : pulls.by;
  const choices: { value: string; label: string; to: Residuals["pulls"] }[] = [
    { value: "fit", label: "pull most on the whole fit", to: { by: "fit" } },
    { value: "change", label: "move what the step adds most", to: { by: "change" } },
    ...columns.map((column) => ({
      value: `b ${columnKey(column)}`,
      label: `move the coefficient of ${partsTitle(column, title)} most`,
      to: { by: "coefficient" as const, column },
    })),
  ];
  return (
    <section className={css.part} aria-label="What if they were not in">
      <h4>
        What if those who{" "}
        <SettingWord
          label="Whose leaving"
          value={key}
          text={choices.find(({ value }) => value === key)?.label ?? "move it most"}
          choices={choices}
          onChange={(value) => {
            const to = choices.find((one) => one.value === value)!.to;
            store.edit({ subject: "residuals", id: residuals.id, to: { ...residuals, pulls: to } });
          }}
        />{" "}
        were not in?
      </h4>
      {without === null ? (
        <p>Nobody lies above the usual mark.</p>
      ) : "refusal" in without ? (
        <p>Without them: {refusalWords(without.refusal, title).what}</p>
      ) : (
        <SideBySide without={without} ladder={ladder} />
      )}
    </section>
  );
}

function SideBySide({ without, ladder }: { without: WithoutPullers; ladder: Ladder }) {
  const { study, store, title } = useStudy();
  const saveTable = useSaveTable();
  const { rows, movers } = without;
  const name = `${ladder.name} with and without`;
  const table = withoutTable(without, ladder, title);
  const leaveOut = (reason: string) => {
    const named = `Without the ${plain(pullersWords(without, title))}`.slice(0, 200);
    const filter = filterWithout(study, ladder.respondents, { rows: [...rows].sort((a, b) => a - b), name: named, reason });
    // one change, taken back as one
    return store.edit(
      { subject: "filter", id: filter.id, to: filter },
      { subject: "ladder", id: ladder.id, to: { ...ladder, respondents: filter.id } },
    );
  };
  return (
    <>
      {movers.length > 0 && (
        <p className={ladders.running}>
          Most:{" "}
          {movers.slice(0, 5).map(({ row, value }, k) => (
            <span key={row}>
              {k > 0 && ", "}
              <Link className="link" href={rowsAddress(store.id, [row])}>
                row {row}
              </Link>{" "}
              ({without.pulls.by === "change" ? formatShare(value, 3) : `${formatNumber(value)} SE`})
            </span>
          ))}
          .
        </p>
      )}
      <p>
        <Said>{whatWithoutSays(without, ladder, title)}</Said>
      </p>
      <PrintedTable table={table} className={ladders.table} testId="without" />
      <div className={css.remedies}>
        {rows.length <= MOST_ROWS && (
          <Link className="link" href={rowsAddress(store.id, rows)}>
            See their rows
          </Link>
        )}
        <span>
          <SaveAs onSave={(kind) => saveTable(name, kind, { csv: () => withoutCsv(without), table: () => table })} />
        </span>
        <LeaveOut offer="Leave them out, with a reason" label="Leave them out of this ladder" onLeaveOut={leaveOut} />
      </div>
    </>
  );
}
