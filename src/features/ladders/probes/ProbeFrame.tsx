"use client";

import { type ReactNode, useEffect, useRef, useState } from "react";
import { ComputationState } from "@/features/study/ComputationState";
import type { Computed } from "@/features/study/use-computed";
import type { Refusal } from "@/study/analyse/refusal";
import { plain, type Words } from "@/study/report/words";
import page from "@/ui/parts/page.module.css";
import { Said } from "@/ui/parts/Said";
import { useOpen } from "../use-open";
import css from "./probes.module.css";

/**
 * What every question to a step has: where it belongs, its sentence, its answer and what that says; folded it is a sentence and one line of result. The one that
 * the address names is brought into view.
 */
export function ProbeFrame(props: {
  id: string;
  name: string;
  /** `step 3 · product`. */
  of: string;
  sentence: ReactNode;
  computed: Computed<{ status: string; refusal?: Refusal }>;
  /** Numbers that are read off what was computed before stay as they are while it is computed anew. */
  live: boolean;
  said: readonly Words[];
  picture: ReactNode;
  /** A way of what it says into the write-up. */
  quote?: ReactNode;
  children: ReactNode;
  onRemove: () => void;
}) {
  const { result, outdated } = props.computed;
  const { probe: opened } = useOpen();
  const [folded, setFolded] = useState(false);
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    if (opened === props.id) section.current?.scrollIntoView({ block: "start" });
  }, [opened, props.id]);
  const answered = props.said.length > 0;
  return (
    <article ref={section} aria-label={`Probe: ${props.name}`} className={css.probe} aria-busy={outdated}>
      <p className={css.of}>
        <span>Probe of {props.of}</span>
        <span className={css.ways}>
          <button type="button" className="link" aria-expanded={!folded} onClick={() => setFolded(!folded)}>
            {folded ? "Unfold" : "Fold"}
          </button>
          {" · "}
          <button type="button" className="link" onClick={props.onRemove}>
            Remove
          </button>
        </span>
      </p>
      {props.sentence}
      <ComputationState of={props.computed} refusal={result?.refusal ?? null} />
      {folded && answered && <p className={css.line}>{plain(props.said[0]!)}</p>}
      {!folded && answered && (
        <div className={outdated && !props.live ? page.outdated : undefined} data-outdated={outdated}>
          {props.picture}
          <ul className={page.said} aria-label="What it says">
            {props.said.map((sentence, i) => (
              <li key={i}>
                <Said>{sentence}</Said>
              </li>
            ))}
          </ul>
          {props.quote && <div className={css.quote}>{props.quote}</div>}
          {props.children}
        </div>
      )}
    </article>
  );
}
