"use client";

import { type MouseEvent, useState } from "react";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import type { AnswerStrip as Strip } from "@/study/analyse/answer-strip";
import { denialIn } from "@/study/analyse/denial";
import type { Scale } from "@/study/model/scale";
import type { Variable } from "@/study/model/variable";
import { AnswerStrip } from "@/ui/charts/AnswerStrip";
import { useBenchDrag, useDropPlace } from "./drag";
import { itemRun, suggestScales } from "./suggest-scales";
import css from "./scales.module.css";

/** Items with how they were answered, those in no scale or all, and the scales that may serve as parts; chosen ones become a scale, join the open one, or have their structure looked at. */
export function ItemBench(props: {
  open: Scale | null;
  onGather: (items: string[], name: string) => void;
  onJoin: (items: string[]) => void;
  onStructure: (items: string[]) => void;
}) {
  const { study, title } = useStudy();
  const [all, setAll] = useState(false);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const gathered = new Set(study.scales.flatMap((s) => s.items.map((i) => i.variable)));
  const items = study.codebook.filter((v) => v.kind === "item");
  const loose = items.filter((v) => !gathered.has(v.name));
  const shown = all ? items : loose;
  const parts = study.scales.filter((s) => s.id !== props.open?.id);
  const order = [...shown.map((v) => v.name), ...parts.map((s) => s.id)];
  const picked = order.filter((name) => chosen.includes(name));
  const strips = new Map(useAsked("strips", { names: shown.map((v) => v.name) }).result?.map((s) => [s.variable, s]));
  const { attach, isOver } = useDropPlace("bench", { kind: "bench" });

  const toggle = (name: string, event: MouseEvent) => {
    const last = chosen.at(-1);
    if (event.shiftKey && last !== undefined && order.includes(last)) {
      const [from, to] = [order.indexOf(last), order.indexOf(name)].sort((a, b) => a - b);
      const span = order.slice(from, to! + 1);
      setChosen([...chosen.filter((one) => !span.includes(one)), ...span.filter((one) => one !== name), name]);
    } else setChosen(chosen.includes(name) ? chosen.filter((one) => one !== name) : [...chosen, name]);
  };
  const done = (act: () => void) => {
    act();
    setChosen([]);
  };
  const together = (name: string) => (picked.includes(name) ? picked : [name]);
  const suggestions = suggestScales(loose);
  const fresh = picked.filter((name) => !props.open?.items.some((item) => item.variable === name));
  return (
    <div ref={attach} className={`${css.benchPlace} ${isOver ? css.benchOver : ""}`}>
      <h2 className={css.benchHead}>
        {all ? "All items" : "Items in no scale"} · {shown.length}
      </h2>
      <p className={css.benchSwitch}>
        <button type="button" className="link" aria-pressed={all} onClick={() => setAll(!all)}>
          {all ? `Only those in no scale (${loose.length})` : `All ${items.length} items`}
        </button>
      </p>
      {!all && loose.length === 0 && <p className="quiet">Every item is in a scale. Drag one here to take it out of the open scale.</p>}
      {props.open && suggestions.length > 0 && (
        <div className={css.offers}>
          {suggestions.map(({ name, items: family }) => (
            <Offer
              key={family.join(" ")}
              words={`Gather ${itemRun(family)} into a scale?`}
              act={() => done(() => props.onGather(family, name))}
            />
          ))}
          {suggestions.length > 1 && (
            <Offer
              words={`Gather all ${suggestions.length}`}
              act={() => done(() => suggestions.forEach(({ name, items: family }) => props.onGather(family, name)))}
            />
          )}
        </div>
      )}
      <ul className={css.bench} aria-label={all ? "All items" : "Items in no scale"}>
        {shown.map((variable) => (
          <BenchItem
            key={variable.name}
            variable={variable}
            strip={strips.get(variable.name)}
            scales={all ? study.scales.filter((s) => s.items.some((i) => i.variable === variable.name)).map((s) => s.name) : []}
            chosen={picked.includes(variable.name)}
            names={together(variable.name)}
            onToggle={(event) => toggle(variable.name, event)}
          />
        ))}
      </ul>
      {parts.length > 0 && (
        <details className={css.benchParts}>
          <summary>Scales as parts of a scale · {parts.length}</summary>
          <ul className={css.bench}>
            {parts.map((scale) => (
              <BenchPart
                key={scale.id}
                scale={scale}
                chosen={picked.includes(scale.id)}
                names={together(scale.id)}
                onToggle={(event) => toggle(scale.id, event)}
              />
            ))}
          </ul>
        </details>
      )}
      {picked.length > 0 && (
        <div className={css.offers}>
          <Offer
            words={`Make a scale from ${itemRun(picked.map((name) => title(name)))}`}
            act={() => done(() => props.onGather(picked, nameFor(picked, items)))}
          />
          {props.open && fresh.length > 0 && (
            <Offer
              words={`Add ${itemRun(fresh.map((name) => title(name)))} to ${props.open.name}`}
              act={() => done(() => props.onJoin(fresh))}
            />
          )}
          {picked.length > 2 && (
            <Offer words={`Look at the structure of these ${picked.length}`} act={() => done(() => props.onStructure(picked))} />
          )}
          <Offer words="Choose none" act={() => setChosen([])} />
        </div>
      )}
    </div>
  );
}

/** What the codebook suggests to call a scale of these items. */
function nameFor(picked: readonly string[], items: readonly Variable[]): string {
  const [one, ...more] = suggestScales(items.filter((v) => picked.includes(v.name)));
  return one && more.length === 0 && one.items.length === picked.length ? one.name : "New scale";
}

function Offer({ words, act }: { words: string; act: () => void }) {
  return (
    <p className={css.offer}>
      <button type="button" className="link" onClick={act}>
        {words}
      </button>
    </p>
  );
}

function BenchItem(props: {
  variable: Variable;
  strip: Strip | undefined;
  scales: string[];
  chosen: boolean;
  names: string[];
  onToggle: (event: MouseEvent) => void;
}) {
  const { variable, strip } = props;
  const { attach, onPointerDown, isDragging } = useBenchDrag(variable.name, props.names);
  const denial = denialIn(variable.label);
  return (
    <li ref={attach} onPointerDown={onPointerDown} className={isDragging ? css.lifted : undefined}>
      <label className={css.benchItem}>
        <input type="checkbox" checked={props.chosen} readOnly onClick={props.onToggle} />
        <span>
          <b>{variable.name}</b> {variable.label}
          {denial !== null && (
            <small className={css.denial} title={`“${denial}” may mean that the item denies what others affirm`}>
              {" "}
              reads like a denial
            </small>
          )}
          {props.scales.length > 0 && <small className="quiet"> in {props.scales.join(", ")}</small>}
        </span>
      </label>
      <div className={css.strip}>{strip && <AnswerStrip strip={strip} width={130} />}</div>
    </li>
  );
}

function BenchPart(props: { scale: Scale; chosen: boolean; names: string[]; onToggle: (event: MouseEvent) => void }) {
  const { attach, onPointerDown, isDragging } = useBenchDrag(props.scale.id, props.names);
  return (
    <li ref={attach} onPointerDown={onPointerDown} className={isDragging ? css.lifted : undefined}>
      <label className={css.benchItem}>
        <input type="checkbox" checked={props.chosen} readOnly onClick={props.onToggle} />
        <span>
          <b>{props.scale.name}</b> <small className="quiet">the scale&rsquo;s score</small>
        </span>
      </label>
    </li>
  );
}
