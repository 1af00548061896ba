"use client";

import { useSearchParams } from "next/navigation";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import { useOutdated } from "@/features/study/use-seen";
import { Look } from "@/study/model/look";
import { counted } from "@/study/report/format-number";
import page from "@/ui/parts/page.module.css";
import { defaultLook } from "@/features/study/default-look";
import css from "./first-look.module.css";
import { LookSheet } from "./LookSheet";
import { MarkedRespondents } from "./marked";

/** The study's looks at the left, the open one in the middle. The first is there before anybody has made one. */
export function FirstLookScreen() {
  const { study, store } = useStudy();
  const outdated = useOutdated();
  const asked = useSearchParams().get("look");
  const looks = study.looks.length === 0 ? [defaultLook(study)] : study.looks;
  const look = looks.find((l) => l.id === asked) ?? looks[0]!;
  const open = (id: string) => {
    window.history.pushState(null, "", `?look=${id}`);
    window.scrollTo(0, 0);
  };
  const create = () => {
    const name = `Look ${looks.length + 1}`;
    const id = newId(name, looks.map((l) => l.id)); // prettier-ignore
    const kept = study.looks.length === 0 ? [{ subject: "first-look" as const, id: look.id, to: look }] : [];
    if (store.edit(...kept, { subject: "first-look", id, to: Look.parse({ id, name, variables: [] }) })) open(id);
  };
  const copy = () => {
    const name = `${look.name}, copy`.slice(0, 200);
    const id = newId(name, looks.map((l) => l.id)); // prettier-ignore
    if (store.edit({ subject: "first-look", id, to: { ...look, id, name } })) open(id);
  };
  return (
    <div className={page.page}>
      <nav className={page.side} aria-label="Looks">
        <div className={page.stay}>
          <h2 className={css.head}>Looks</h2>
          <ul className={css.looks}>
            {looks.map((l) => (
              <li key={l.id}>
                <button type="button" aria-current={l.id === look.id ? "true" : undefined} onClick={() => open(l.id)}>
                  {l.name} <small>{counted(l.variables.length, "variable")}</small>
                  {outdated.has(`first-look ${l.id}`) && l.id !== look.id && <span className={page.stale}> · out of date</span>}
                </button>
              </li>
            ))}
          </ul>
          <p className={css.ways}>
            <button type="button" className="link" onClick={create}>
              New look
            </button>
            <button type="button" className="link" onClick={copy}>
              Copy this look
            </button>
            {study.looks.some((l) => l.id === look.id) && (
              <button type="button" className="link" onClick={() => store.edit({ subject: "first-look", id: look.id, to: null })}>
                Remove this look
              </button>
            )}
          </p>
        </div>
      </nav>
      <MarkedRespondents key={look.id}>
        <LookSheet look={look} />
      </MarkedRespondents>
    </div>
  );
}
