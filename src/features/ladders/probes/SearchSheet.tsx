"use client";

import { Button } from "antd";
import { categoryChoices } from "@/features/study/name-choices";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { searchCsv } from "@/files/search-csv";
import { tableAsHtml } from "@/files/table-html";
import type { SearchResult } from "@/study/analyse/analyse-search";
import { newId } from "@/study/model/new-id";
import type { Ladder } from "@/study/model/ladder";
import { type Search, SearchMethod } from "@/study/model/search";
import { counted, formatShare } from "@/study/report/format-number";
import { columnTitles, METHOD_WORDS, searchTable, whatTheSearchSays } from "@/study/report/ladder/search-words";
import { ChartFrame } from "@/ui/charts/ChartFrame";
import { SizeLines } from "@/ui/charts/SizeLines";
import page from "@/ui/parts/page.module.css";
import { SaveAs } from "@/ui/parts/SaveAs";
import { fileName, saveFile } from "@/ui/parts/save-file";
import { SettingWord } from "@/ui/parts/SettingWord";
import ladders from "../ladders.module.css";
import { useOpen } from "../use-open";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";
import { searchCandidates, searchedLadder } from "./searched-ladder";

/** Below which p a term comes in, and above which it goes again. */
const LIMITS = [
  { enter: 0.01, leave: 0.05 },
  { enter: 0.05, leave: 0.1 },
  { enter: 0.1, leave: 0.15 },
  { enter: 0.15, leave: 0.2 },
];
const limits = ({ enter, leave }: { enter: number; leave: number }) =>
  `in below p = ${formatShare(enter)}, out above ${formatShare(leave)}`;

type Told = Extract<SearchResult, { status: "told" }>;

/** A search for predictors beyond the controls: what each method takes at each size, and what the shown one chooses. Always exploratory. */
export function SearchSheet({ search, ladder }: { search: Search; ladder: Ladder }) {
  const { study, store, title } = useStudy();
  const { open } = useOpen();
  const computed = useAsked("search", search);
  const told = computed.result?.status === "told" ? computed.result : null;
  const change = (to: Partial<Search>) => void store.edit({ subject: "search", id: search.id, to: { ...search, ...to } });
  const name = `search for predictors of ${ladder.outcome === null ? "the outcome" : title(ladder.outcome)}`;
  const save = (of: Told, kind: "csv" | "html") => {
    if (kind === "csv") saveFile(fileName(name, "csv"), "text/csv", searchCsv(of));
    else saveFile(fileName(name, "html"), "text/html", tableAsHtml(searchTable(search, of, ladder.name, title)));
  };
  const steps = (count: number) => (count === 0 ? "nothing" : count === 1 ? "step 1" : `steps 1 to ${count}`);
  const possible = searchCandidates(study, ladder, search.controls);
  const toggle = (of: string) => {
    const next = search.candidates.includes(of) ? search.candidates.filter((one) => one !== of) : [...search.candidates, of];
    if (next.length > 0) change({ candidates: next });
  };
  const take = (of: Told) => {
    const id = newId(`${ladder.name} searched`, study.ladders.map((l) => l.id)); // prettier-ignore
    if (store.edit({ subject: "ladder", id, to: searchedLadder(ladder, search, of.chosen.terms, id) })) open({ ladder: id });
  };
  return (
    <ProbeFrame
      id={search.id}
      name={name}
      of="search · exploratory"
      sentence={
        <h3 className={page.sentence}>
          Among {counted(search.candidates.length, "candidate")}, those that predict{" "}
          {ladder.outcome === null ? "the outcome" : title(ladder.outcome)} beyond{" "}
          <SettingWord
            label="Always in"
            value={String(search.controls)}
            text={steps(search.controls)}
            choices={Array.from({ length: ladder.steps.length + 1 }, (_, count) => ({ value: String(count), label: steps(count) }))}
            onChange={(count) => change({ controls: Number(count) })}
          />
          , by{" "}
          <SettingWord
            label="Method"
            main
            value={search.method}
            text={METHOD_WORDS[search.method]}
            choices={SearchMethod.options.map((value) => ({ value, label: METHOD_WORDS[value] }))}
            onChange={(method) => change({ method: method as SearchMethod })}
          />
          {search.method === "lasso" && (
            <>
              {" at "}
              <SettingWord
                label="Point of the path"
                value={search.at}
                text={search.at === "minimum" ? "the smallest error" : "one SE of the smallest error"}
                choices={[
                  { value: "one-se", label: "the sparest within one SE of the smallest error" },
                  { value: "minimum", label: "the smallest error of held-out cases" },
                ]}
                onChange={(at) => change({ at: at as Search["at"] })}
              />
            </>
          )}
          {search.method === "lasso" && (
            <>
              {", by "}
              <SettingWord
                label="Folds"
                value={search.folds ?? "-"}
                text={search.folds === null ? "ten drawn folds" : `the folds of ${title(search.folds)}`}
                choices={[{ value: "-", label: "ten folds, drawn with the seed" }, ...categoryChoices(study)]}
                onChange={(value) => change({ folds: value === "-" ? null : value })}
              />
            </>
          )}
          {search.method.endsWith("-p") && (
            <>
              {", in below "}
              <SettingWord
                label="In and out"
                value={limits(search)}
                text={`p = ${formatShare(search.enter)}`}
                choices={LIMITS.map((both) => ({ value: limits(both), label: limits(both) }))}
                onChange={(value) => change(LIMITS.find((both) => limits(both) === value)!)}
              />
            </>
          )}
          .
        </h3>
      }
      computed={computed}
      live={false}
      said={told ? whatTheSearchSays(search, told, title) : []}
      picture={told && <Picture told={told} search={search} name={name} />}
      onRemove={() => store.edit({ subject: "search", id: search.id, to: null })}
    >
      <details className={css.foot}>
        <summary>
          {search.candidates.length} of {counted(possible.length, "possible candidate")}
        </summary>
        <ul className={css.candidates}>
          {possible.map((of) => (
            <li key={of}>
              <label>
                <input type="checkbox" checked={search.candidates.includes(of)} onChange={() => toggle(of)} /> {title(of)}
              </label>
            </li>
          ))}
        </ul>
      </details>
      {told && (
        <p className={css.foot}>
          {told.chosen.terms.length > 0 && (
            <Button size="small" onClick={() => take(told)}>
              Open {told.chosen.terms.length === 1 ? "this one" : `these ${told.chosen.terms.length}`} as a ladder, exploratory
            </Button>
          )}{" "}
          <SaveAs onSave={(kind) => save(told, kind)} />
        </p>
      )}
    </ProbeFrame>
  );
}

function Picture({ told, search, name }: { told: Told; search: Search; name: string }) {
  const { title } = useStudy();
  const { searched, chosen } = told;
  const lines = SearchMethod.options.map((method) => ({
    name: METHOD_WORDS[method],
    points: searched.bySize[method].map((one) => ({ size: one.size, value: one.refitR2 })),
  }));
  const sizes = [...new Set(Object.values(searched.bySize).flatMap((points) => points.map((one) => one.size)))].sort((a, b) => a - b);
  return (
    <ChartFrame
      title={name}
      note="R² of least squares on the columns that each method has at each size, controls included"
      table={
        <table className={ladders.table} data-testid="search">
          <caption className="visually-hidden">{name}</caption>
          <thead>
            <tr>
              <th scope="col" style={{ textAlign: "left" }}>
                columns
              </th>
              {SearchMethod.options.map((method) => (
                <th key={method} scope="col">
                  {METHOD_WORDS[method]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sizes.map((size) => (
              <tr key={size}>
                <th scope="row">{size}</th>
                {SearchMethod.options.map((method) => {
                  const one = searched.bySize[method].find((point) => point.size === size);
                  return (
                    <td
                      key={method}
                      className={method === search.method && size === chosen.size ? ladders.value : undefined}
                      title={one && columnTitles(one, told, title)}
                    >
                      {one ? formatShare(one.refitR2, 3) : ""}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <SizeLines
        title={name}
        lines={lines}
        chosen={{ size: chosen.size, value: chosen.refitR2 }}
        axis="columns besides the controls"
        format={(v) => formatShare(v)}
      />
    </ChartFrame>
  );
}
