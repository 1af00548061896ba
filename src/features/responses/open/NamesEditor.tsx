"use client";

import { Button, Input } from "antd";
import { useState } from "react";
import { useStudy } from "@/features/study/study-context";
import type { Edit } from "@/study/model/edit";
import { proposedNames } from "@/study/report/short-names";
import { counted } from "@/study/report/format-number";
import page from "../responses.module.css";
import css from "./open.module.css";

/** Short names for the items of whole questions, made from their wordings and changed in one place: for tables, axes and sentences. The file's names stay. */
export function NamesEditor() {
  const { study, store } = useStudy();
  const [open, setOpen] = useState(false);
  const families = proposedNames(study.codebook);
  const [stems, setStems] = useState<Record<string, string>>({});
  if (families.length === 0) return null;
  const all = families.reduce((sum, family) => sum + family.names.length, 0);
  const stemOf = (key: string, stem: string) => (stems[key] ?? stem).trim();
  const keep = () => {
    const edits = families.flatMap(({ key, stem, names }): Edit[] => {
      const chosen = stemOf(key, stem);
      if (chosen === "") return [];
      return names.flatMap((name, k) => {
        const variable = study.codebook.find((v) => v.name === name)!;
        return [{ subject: "variable", id: name, to: { ...variable, short: `${chosen}_${k + 1}`.slice(0, 60) } }];
      });
    });
    if (edits.length > 0 && store.edit(...edits)) setOpen(false);
  };
  if (!open) {
    return (
      <p>
        <button type="button" className="link" aria-expanded={false} onClick={() => setOpen(true)}>
          Short names from the wordings of {counted(all, "item")} …
        </button>
      </p>
    );
  }
  return (
    <form
      className={css.editor}
      aria-label="Short names"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <table className={css.answers}>
        <thead>
          <tr>
            <th scope="col">Question</th>
            <th scope="col">In the file</th>
            <th scope="col">Short name</th>
            <th scope="col">becomes</th>
          </tr>
        </thead>
        <tbody>
          {families.map(({ key, stem, names, question }) => (
            <tr key={key}>
              <th scope="row">{question}</th>
              <td>
                {names[0]} to {names.at(-1)}
              </td>
              <td>
                <Input
                  size="small"
                  style={{ width: 150 }}
                  aria-label={`Short name for ${names[0]} to ${names.at(-1)}`}
                  value={stems[key] ?? stem}
                  onChange={(event) => setStems({ ...stems, [key]: event.target.value })}
                />
              </td>
              <td className="quiet">
                {stemOf(key, stem) === "" ? "stays as it is" : `${stemOf(key, stem)}_1 to ${stemOf(key, stem)}_${names.length}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={page.ways}>
        <Button type="primary" size="small" htmlType="submit">
          Keep these short names
        </Button>
        <button type="button" className="link" onClick={() => setOpen(false)}>
          Close
        </button>
      </p>
    </form>
  );
}
