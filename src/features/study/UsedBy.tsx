"use client";

import { usedBy } from "@/study/kinds/standing";
import { Note } from "@/ui/parts/Margin";
import { useStudy } from "./study-context";

/** Everything that stands on a variable, a variable worked out or a scale. */
export function UsedBy({ name }: { name: string }) {
  const { study } = useStudy();
  const all = usedBy(study, { kind: "name", id: name }).filter(({ kind }) => kind !== "correction");
  return (
    <Note heading="Used by">
      {all.length === 0 ? (
        <p>Nothing yet.</p>
      ) : (
        <>
          <ul>
            {all.map((one) => (
              <li key={`${one.kind} ${one.id}`}>{one.kind === "derived" ? one.name : `${one.kind} ${one.name}`}</li>
            ))}
          </ul>
          <p className="quiet">A change here computes {all.length === 1 ? "it" : "them"} anew.</p>
        </>
      )}
    </Note>
  );
}
