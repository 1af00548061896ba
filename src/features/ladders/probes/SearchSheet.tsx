"use client";

import { categoryChoices } from "@/features/study/name-choices";
import { QuoteThis } from "@/features/study/QuoteThis";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { searchCsv } from "@/files/search-csv";
import type { SearchResult } from "@/study/analyse/analyse-search";
import { newId } from "@/study/model/new-id";
import type { Ladder } from "@/study/model/ladder";
import { MOST_CANDIDATES, type Search, SearchMethod } from "@/study/model/search";
import { counted, formatShare } from "@/study/report/format-number";
import { METHOD_WORDS, searchTable, whatTheSearchSays } from "@/study/report/ladder/search-words";
import page from "@/ui/parts/page.module.css";
import { SaveAs } from "@/ui/parts/SaveAs";
import { SettingWord } from "@/ui/parts/SettingWord";
import { useSaveTable } from "../exploratory";
import { useOpen } from "../use-open";
import { ProbeFrame } from "./ProbeFrame";
import css from "./probes.module.css";
import { SearchPicture } from "./SearchPicture";
import { SearchStability } from "./SearchStability";
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
  const saveTable = useSaveTable();
  const computed = useAsked("search", search);
  const told = computed.result?.status === "told" ? computed.result : null;
  const change = (to: Partial<Search>) => void store.edit({ subject: "search", id: search.id, to: { ...search, ...to } });
  const name = `search for predictors of ${ladder.outcome === null ? "the outcome" : title(ladder.outcome)}`;
  const save = (of: Told, kind: "csv" | "html") => {
    saveTable(name, kind, { csv: () => searchCsv(of), table: () => searchTable(search, of, ladder.name, title) });
  };
  const steps = (count: number) => (count === 0 ? "nothing" : count === 1 ? "step 1" : `steps 1 to ${count}`);
  const possible = searchCandidates(study, ladder, search.controls);
  const chosen = new Set(search.candidates);
  const full = chosen.size === MOST_CANDIDATES;
  const toggle = (of: string) => {
    const next = chosen.has(of) ? search.candidates.filter((one) => one !== of) : [...search.candidates, of];
    if (next.length > 0) change({ candidates: next });
  };
  const take = (of: Told) => {
    const id = newId(`${ladder.name} searched`, study.ladders.map((l) => l.id)); // prettier-ignore
    if (store.edit({ subject: "ladder", id, to: searchedLadder(ladder, search, of.chosen.terms, id, of.sample.rowsUsed) }))
      open({ ladder: id });
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
          {search.size !== null && (
            <>
              {", "}
              <SettingWord
                label="Size"
                value="own"
                text={`at most ${counted(search.size, "column")}`}
                choices={[
                  { value: "own", label: `at most ${counted(search.size, "column")}` },
                  { value: "end", label: "as many as the method itself ends with" },
                ]}
                onChange={(value) => value === "end" && change({ size: null })}
              />
            </>
          )}
          {search.method === "lasso" && search.size === null && (
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
      picture={told && <SearchPicture told={told} search={search} name={name} onSize={(size) => change({ size })} />}
      quote={
        computed.result && (
          <QuoteThis of={{ paragraph: { kind: "search", id: search.id } }} part={{ searches: new Map([[search.id, computed.result]]) }} />
        )
      }
      onRemove={() => store.edit({ subject: "search", id: search.id, to: null })}
    >
      <details className={css.foot}>
        <summary>
          {search.candidates.length} of {counted(possible.length, "possible candidate")}
          {full && ", as many as a search takes"}
        </summary>
        <ul className={css.candidates}>
          {possible.map((of) => (
            <li key={of}>
              <label>
                <input type="checkbox" checked={chosen.has(of)} disabled={full && !chosen.has(of)} onChange={() => toggle(of)} />{" "}
                {title(of)}
              </label>
            </li>
          ))}
        </ul>
      </details>
      {told && (
        <p className={css.foot}>
          {told.chosen.terms.length > 0 && (
            <button type="button" className="link" onClick={() => take(told)}>
              Open {told.chosen.terms.length === 1 ? "this one" : `these ${told.chosen.terms.length}`} as a ladder, exploratory
            </button>
          )}{" "}
          <SaveAs onSave={(kind) => save(told, kind)} />
        </p>
      )}
      {told && <SearchStability search={search} ladder={ladder} change={change} />}
    </ProbeFrame>
  );
}
