"use client";

import { useState } from "react";
import { newId } from "@/features/study/new-id";
import { useStudy } from "@/features/study/study-context";
import page from "@/ui/parts/page.module.css";
import { ItemBench } from "./ItemBench";
import { ScaleSheet } from "./ScaleSheet";
import css from "./scales.module.css";

/** The item bench on the left, one score sheet in the middle. */
export function ScalesScreen() {
  const { study, store } = useStudy();
  const [openId, setOpenId] = useState<string | null>(null);
  const open = study.scales.find((s) => s.id === openId) ?? study.scales[0] ?? null;
  const gathered = new Set(study.scales.flatMap((s) => s.items.map((i) => i.variable)));
  const loose = study.codebook.filter((v) => v.kind === "item" && !gathered.has(v.name));

  const gather = (items: string[], name: string) => {
    const taken = [...study.scales.map((s) => s.id), ...study.codebook.map((v) => v.name)];
    const id = newId(name, taken);
    const to = {
      id,
      name,
      rule: "mean" as const,
      answeredShare: 0.8,
      items: items.map((variable) => ({ variable, reversed: false })),
      respondents: null,
    };
    if (store.edit({ subject: "scale", id, to })) setOpenId(id);
  };
  const join = (items: string[]) => {
    if (open)
      store.edit({
        subject: "scale",
        id: open.id,
        to: { ...open, items: [...open.items, ...items.map((variable) => ({ variable, reversed: false }))] },
      });
  };

  return (
    <div className={`${page.page} ${css.place}`}>
      <aside className={page.side} aria-label="Item bench">
        <ItemBench loose={loose} openScale={open?.name ?? null} onGather={gather} onJoin={join} />
      </aside>
      {open ? (
        <ScaleSheet key={open.id} scale={open} onOpen={setOpenId} />
      ) : (
        <main className={page.sheet}>
          <h1 className={page.sentence}>Gather items that ask about the same thing into a scale.</h1>
          <p className="quiet">
            {loose.length > 0
              ? "Choose items on the left, or take up a suggestion below them."
              : "No variable of this study is marked as an item. Mark items in the codebook, under Responses."}
          </p>
        </main>
      )}
    </div>
  );
}
