"use client";

import { ComputationState } from "@/features/study/ComputationState";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { newId } from "@/study/model/new-id";
import { type Plan, plannedOf } from "@/study/model/plan";
import { counted } from "@/study/report/format-number";
import { deviationRows, deviationTable, planSays } from "@/study/report/theory/plan-words";
import page from "@/ui/parts/page.module.css";
import { PrintedTable } from "@/ui/parts/PrintedTable";
import { fileName, saveFile } from "@/ui/parts/save-file";
import css from "./theory.module.css";

/** The plans of a study: fixed on a day, given away as a text, and what was done otherwise since. */
export function PlanSection() {
  const { study, store, dataset } = useStudy();
  const fix = async () => {
    const { planSum } = await import("@/study/analyse/plan-analysis");
    const id = newId(`plan ${study.plans.length + 1}`, study.plans.map((p) => p.id)); // prettier-ignore
    const said = { at: new Date().toISOString(), rows: dataset.rows, document: plannedOf(study) };
    store.edit({ subject: "plan", id, to: { id, ...said, sha256: planSum(said) } });
  };
  return (
    <section aria-label="Plan" className={css.plan}>
      <h2 className={page.heading}>Plan</h2>
      {study.plans.length === 0 && (
        <p className="quiet">
          Fixed, a plan holds scales, ladders and hypotheses with the day and a sum by which others can check them. What is done otherwise
          later is then listed by itself.
        </p>
      )}
      {study.plans.map((plan) => (
        <FixedPlan key={plan.id} plan={plan} />
      ))}
      <button type="button" className="link" onClick={() => void fix()}>
        Fix the plan as it stands
      </button>
    </section>
  );
}

function FixedPlan({ plan }: { plan: Plan }) {
  const { study, store } = useStudy();
  const computed = useAsked("plan", plan);
  const found = computed.result;
  const rows = found && deviationRows(found.deviations, plan.document, plannedOf(study));
  const name = `${study.name} plan ${plan.at.slice(0, 10)}`;
  const markdown = async () => {
    const { planMarkdown } = await import("@/files/plan-markdown");
    saveFile(fileName(name, "md"), "text/markdown", planMarkdown(study.name, plan));
  };
  const json = () => {
    const { theory, ...lists } = plan.document;
    const document = { format: study.format, version: study.version, name: study.name, responses: null, ...lists, theories: [theory], plans: [plan] }; // prettier-ignore
    saveFile(fileName(name, "json"), "application/json", `${JSON.stringify(document, null, 1)}\n`);
  };
  return (
    <article className={css.fixed} aria-label={`Plan of ${plan.at.slice(0, 10)}`}>
      <p>{planSays(plan, found)}</p>
      <ComputationState of={computed} refusal={null} />
      {rows && (
        <p data-testid="deviations">{rows.length === 0 ? "Nothing was done otherwise." : `${counted(rows.length, "deviation")}:`}</p>
      )}
      {rows && rows.length > 0 && <PrintedTable table={deviationTable(plan, rows)} className={css.table} testId="deviation-table" />}
      <p className={css.ways}>
        <button type="button" className="link" onClick={() => void markdown()}>
          Save as Markdown
        </button>
        <button type="button" className="link" onClick={json}>
          Save the study document (JSON)
        </button>
        <button type="button" className="link" onClick={() => store.edit({ subject: "plan", id: plan.id, to: null })}>
          Remove this plan
        </button>
      </p>
    </article>
  );
}
