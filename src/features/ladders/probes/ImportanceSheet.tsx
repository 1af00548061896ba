"use client";

import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { importanceCsv } from "@/files/importance-csv";
import { tableAsHtml } from "@/files/table-html";
import type { ImportanceResult } from "@/study/analyse/analyse-importance";
import type { Importance } from "@/study/model/importance";
import type { Ladder } from "@/study/model/ladder";
import { formatShare } from "@/study/report/format-number";
import { byShare, importanceTable, whatImportanceSays } from "@/study/report/ladder/importance-table";
import { termTitle } from "@/study/report/level-title";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { ShareSteps } from "@/ui/charts/ShareSteps";
import page from "@/ui/parts/page.module.css";
import { SaveAs } from "@/ui/parts/SaveAs";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { SettingWord } from "@/ui/parts/SettingWord";
import ladders from "../ladders.module.css";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";

type Told = Extract<ImportanceResult, { status: "told" }>;

/** How R² is dealt out among the terms of a step, averaged over all orders of entry, beside what else is called importance. */
export function ImportanceSheet({ importance, ladder }: { importance: Importance; ladder: Ladder }) {
  const { store, title } = useStudy();
  const computed = useAsked("importance", importance);
  const told = computed.result?.status === "told" ? computed.result : null;
  const step = Math.min(importance.step ?? ladder.steps.length, ladder.steps.length);
  const controls = Math.min(importance.controls, step - 1);
  const name = `importance in step ${step} of ${ladder.name}`;
  const save = (of: Told, kind: "csv" | "html") => {
    if (kind === "csv") saveFile(fileName(name, "csv"), "text/csv", importanceCsv(of));
    else saveFile(fileName(name, "html"), "text/html", tableAsHtml(importanceTable(of, ladder.name, title)));
  };
  const words = (count: number) => (count === 0 ? "nothing" : count === 1 ? "step 1" : `steps 1 to ${count}`);
  return (
    <ProbeFrame
      id={importance.id}
      name={name}
      of={`step ${step} · importance`}
      sentence={
        <h3 className={page.sentence}>
          How much of {ladder.outcome === null ? "the outcome" : title(ladder.outcome)} each term explains, whatever the order, beyond{" "}
          <SettingWord
            label="Controls"
            value={String(controls)}
            text={words(controls)}
            choices={Array.from({ length: step }, (_, count) => ({ value: String(count), label: words(count) }))}
            onChange={(count) => store.edit({ subject: "importance", id: importance.id, to: { ...importance, controls: Number(count) } })}
          />
          .
        </h3>
      }
      computed={computed}
      live={false}
      said={told ? whatImportanceSays(told, title) : []}
      picture={told && <Picture told={told} name={name} />}
      onRemove={() => store.edit({ subject: "importance", id: importance.id, to: null })}
    >
      {told && (
        <p className={css.foot}>
          The share answers how much a term explains on average; <i>r</i> what it does by itself, <i>part</i> what it adds to all others,{" "}
          <i>β</i> how far the outcome goes with it while all others stay. <SaveAs onSave={(kind) => save(told, kind)} />
        </p>
      )}
    </ProbeFrame>
  );
}

function Picture({ told, name }: { told: Told; name: string }) {
  const { title } = useStudy();
  const rows = byShare(told.terms);
  return (
    <ChartFrame
      title={name}
      note={`shares of R², averaged over orders of entry; they add up to ${formatShare(told.of.R2 - told.of.controlsR2, 3)}`}
      table={
        <table className={ladders.table} data-testid="importance">
          <caption className="visually-hidden">{name}</caption>
          <thead>
            <tr>
              <th scope="col" style={{ textAlign: "left" }}>
                term
              </th>
              <th scope="col">
                share of <i>R</i>²
              </th>
              <th scope="col">%</th>
              <th scope="col">
                <i>r</i>
              </th>
              <th scope="col">part</th>
              <th scope="col">
                <i>β</i>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((term) => (
              <tr key={term.key}>
                <th scope="row">{termTitle(term.term, title)}</th>
                <td className={ladders.value}>{formatShare(term.share, 3)}</td>
                <td>{term.ofSum === null ? "" : (term.ofSum * 100).toFixed(1)}</td>
                <td>{formatShare(term.zeroOrder)}</td>
                <td>{formatShare(term.part)}</td>
                <td>{formatShare(term.beta)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <ShareSteps
        title={name}
        parts={[
          ...(told.controls > 0 ? [{ name: "Controls", share: told.of.controlsR2, quiet: true }] : []),
          ...rows.map((term) => ({ name: termTitle(term.term, title), share: term.share, quiet: false })),
        ]}
        format={(share) => formatShare(share, 3)}
      />
    </ChartFrame>
  );
}
