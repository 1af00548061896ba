"use client";

import { useStudy } from "@/features/study/study-context";
import { useParts } from "@/features/study/use-parts";
import { stabilityCsv } from "@/files/stability-csv";
import type { SearchStability as Stability } from "@/study/analyse/joined-stability";
import type { Ladder } from "@/study/model/ladder";
import { type Search } from "@/study/model/search";
import { formatCount } from "@/study/report/format-number";
import { stabilityTable, whatStabilitySays } from "@/study/report/ladder/search-words";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { Said } from "@/ui/parts/Said";
import { SaveAs } from "@/ui/parts/SaveAs";
import { useSaveTable } from "../exploratory";
import ladders from "../ladders.module.css";
import { DrawnState } from "@/features/study/DrawnState";
import css from "./probes.module.css";

/** How often everything comes out on respondents drawn again: only where somebody asks for it. */
export function SearchStability({ search, ladder, change }: { search: Search; ladder: Ladder; change: (to: Partial<Search>) => void }) {
  const { title } = useStudy();
  const saveTable = useSaveTable();
  const drawn = useParts("search", search, search.resamples !== null);
  const found = drawn.found as Stability | null;
  if (search.resamples === null)
    return (
      <button type="button" className="link" onClick={() => change({ resamples: 200 })}>
        How often would each come out? Draw 200 samples
      </button>
    );
  const table = found && stabilityTable(found, ladder.name, title);
  return (
    <section aria-label="How often each comes out" className={css.part}>
      <h4>How often would each come out?</h4>
      <DrawnState
        drawn={drawn}
        noun="samples"
        testId="stability-state"
        stopped="Stopped before all samples were drawn."
        whole={
          <>
            {formatCount(search.resamples)} samples drawn, seed {search.seed}.{" "}
            <button type="button" className="link" onClick={() => change({ resamples: null })}>
              No more
            </button>
          </>
        }
      />
      {found && table && (
        <>
          <ul className={page.said}>
            {whatStabilitySays(found, title).map((sentence, k) => (
              <li key={k}>
                <Said>{sentence}</Said>
              </li>
            ))}
          </ul>
          <PrintedTable table={table} className={ladders.table} testId="stability" />
          <SaveAs onSave={(kind) => saveTable(`${ladder.name} stability`, kind, { csv: () => stabilityCsv(found), table: () => table })} />
        </>
      )}
    </section>
  );
}
