"use client";

import { Input } from "antd";
import Link from "next/link";
import { useState } from "react";
import { formatCount } from "@/study/report/format-number";
import { LocalTime } from "@/ui/parts/LocalTime";
import css from "./studies.module.css";
import type { StudyEnd } from "./use-study-end";

interface Line {
  id: string;
  name: string;
  rows: number;
  updatedAt: string;
}

/** A study of the list: opened by its name, renamed in its place, copied, put away, deleted. */
export function StudyRow({ study, end }: { study: Line; end: (id: string, how: StudyEnd) => Promise<void> }) {
  const [typed, setTyped] = useState<string | null>(null);
  const way = (words: string, act: () => void) => (
    <button type="button" className="link" aria-label={`${words} ${study.name}`} onClick={act}>
      {words}
    </button>
  );
  const keep = () => {
    const name = typed?.trim() ?? "";
    setTyped(null);
    if (name !== "" && name !== study.name) void end(study.id, { name });
  };
  return (
    <tr>
      <th scope="row">
        {typed === null ? (
          <Link href={`/studies/${study.id}/ladders`}>{study.name}</Link>
        ) : (
          <Input
            size="small"
            autoFocus
            aria-label={`New name for ${study.name}`}
            maxLength={200}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={keep}
            onPressEnter={keep}
            onKeyDown={(event) => event.key === "Escape" && setTyped(null)}
          />
        )}
      </th>
      <td className={css.number}>{formatCount(study.rows)}</td>
      <td className="quiet">
        <LocalTime at={study.updatedAt} />
      </td>
      <td>
        <span className={css.ways}>
          {way("Rename", () => setTyped(study.name))}
          {way("Copy", () => void end(study.id, "copy"))}
          {way("Put away", () => void end(study.id, { putAway: true }))}
          {way("Delete", () => void end(study.id, "delete"))}
        </span>
      </td>
    </tr>
  );
}
