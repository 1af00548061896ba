"use client";

import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import type { Typed } from "@/ui/parts/later";
import css from "./finder.module.css";
import { finderItems } from "./finder-items";
import { ENTERED, type FinderProps } from "./PlainFinder";
import { useStudy } from "./study-context";

/** Leads to any variable, scale, ladder or place by a few letters of its name or wording, or does what was asked. */
export default function Finder({ onClose, onShortcuts, onTrail, typed: before = "" }: FinderProps & Typed) {
  const { study, store } = useStudy();
  const router = useRouter();
  const [typed, setTyped] = useState(() => before.replace(ENTERED, ""));
  const dialog = useRef<HTMLDialogElement>(null);
  const input = useRef<HTMLInputElement>(null);
  // in the moment in which it is drawn: keys may follow at once
  useLayoutEffect(() => {
    dialog.current?.showModal();
    input.current?.focus();
  }, []);
  const actions = [
    { key: "undo", name: "Take the last change back", act: () => void store.undo() },
    { key: "redo", name: "Do it again", act: () => void store.redo() },
    { key: "trail", name: "Open the trail", act: onTrail },
    { key: "shortcuts", name: "Show the shortcuts", act: onShortcuts },
    { key: "studies", name: "All studies", act: () => router.push("/") },
  ];
  const items = finderItems(study, actions, typed);
  const groups = [...new Set(items.map((item) => item.group))];
  const choose = (key: string, at: string | null) => {
    onClose();
    if (at !== null) router.push(`/studies/${store.id}/${at}`);
    else actions.find((action) => `action ${action.key}` === key)!.act();
  };
  useEffect(() => {
    if (before.endsWith(ENTERED) && items[0]) choose(items[0].key, items[0].at);
  }, []); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <dialog
      ref={dialog}
      className={css.finder}
      aria-label="Finder"
      onClose={onClose}
      onClick={(e) => e.target === dialog.current && onClose()}
    >
      <Command shouldFilter={false} label="Find">
        <Command.Input
          ref={input}
          value={typed}
          onValueChange={setTyped}
          placeholder="A variable, its wording, a scale, a ladder, a place …"
        />
        <Command.List label="What was found">
          <Command.Empty>Nothing of this study is called so.</Command.Empty>
          {groups.map((group) => (
            <Command.Group key={group} heading={group}>
              {items
                .filter((item) => item.group === group)
                .map(({ key, name, words, at }) => (
                  <Command.Item key={key} value={key} onSelect={() => choose(key, at)}>
                    <span className={css.name}>{name}</span> {words !== "" && words !== name && <span className={css.words}>{words}</span>}
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </dialog>
  );
}
