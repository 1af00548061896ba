"use client";

import { Button } from "antd";
import Link from "next/link";
import { useStudy } from "@/features/study/study-context";
import { useAsked } from "@/features/study/use-computed";
import { namesOf } from "@/study/analyse/responses/open-points";
import { counted, formatPlain } from "@/study/report/format-number";
import { openFix, openWords } from "@/study/report/open-words";
import page from "@/ui/parts/page.module.css";
import { ThemedPlace } from "@/ui/theme/ThemeProvider";
import css from "./scales.module.css";
import { itemRun, suggestScales } from "./suggest-scales";

/** The sheet of a study without scales: the families there are, each with its items and range, ready to be gathered; or what must come first. */
export default function FirstScales({ onGather }: { onGather: (items: string[], name: string) => void }) {
  const { study } = useStudy();
  const items = study.codebook.filter((v) => v.kind === "item");
  const families = suggestScales(items);
  const gather = (all: typeof families) => all.forEach(({ name, items: family }) => onGather(family, name));
  return (
    <ThemedPlace>
      <h1 className={page.sentence}>Gather items that ask about the same thing into a scale.</h1>
      {families.length > 0 && (
        <section aria-label="Families of items" className={css.families}>
          <p>
            {counted(families.length, "family", "families")} of items {families.length === 1 ? "looks" : "look"} like scales.{" "}
            {families.length > 1 && (
              <Button type="primary" size="small" onClick={() => gather(families)}>
                Gather all {families.length}
              </Button>
            )}
          </p>
          {families.map((family) => (
            <article key={family.items.join(" ")}>
              <h2>
                {family.name} <span className="quiet">{itemRun(family.items)}</span>{" "}
                <Button size="small" aria-label={`Gather ${itemRun(family.items)} into a scale?`} onClick={() => gather([family])}>
                  Gather these {family.items.length}
                </Button>
              </h2>
              <ul>
                {family.items.map((name) => {
                  const { label, range } = items.find((v) => v.name === name)!;
                  return (
                    <li key={name}>
                      <b>{name}</b> {label}{" "}
                      <span className="quiet">
                        {range ? `${formatPlain(range.low)} to ${formatPlain(range.high)}` : "possible answers not declared"}
                      </span>
                    </li>
                  );
                })}
              </ul>
            </article>
          ))}
        </section>
      )}
      {items.length > 0 && families.length === 0 && <p>Choose items on the left: two or more become a scale.</p>}
      <Waiting />
      {items.length === 0 && (
        <p>
          No variable of this study is a scale item yet.{" "}
          <Link className="link" href="responses#open">
            See what the file holds
          </Link>
          , or mark items in its codebook.
        </p>
      )}
    </ThemedPlace>
  );
}

/** Answers in words that wait to be read: without it they are no items. */
function Waiting() {
  const { study, store } = useStudy();
  const points = useAsked("open-points", {}).result?.filter((point) => point.kind === "answers") ?? [];
  if (points.length === 0) return null;
  return (
    <section aria-label="Answers in words" className={css.families}>
      <p>Questions that are answered in words are scale items once their words are read.</p>
      <ul>
        {points.map((point) => {
          const fix = openFix(point, study);
          const about = namesOf(point)[0]!;
          return (
            <li key={about}>
              {openWords(point, study)}{" "}
              {fix ? (
                <Button size="small" aria-label={`${fix.label}: ${about}`} onClick={() => void store.edit(...fix.edits)}>
                  {fix.label}
                </Button>
              ) : (
                <Link className="link" href="responses#open">
                  Place them
                </Link>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
