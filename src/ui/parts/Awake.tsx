"use client";

import { useEffect } from "react";

/** Told to the document once the page hears what is done on it. */
export const AWAKE = "beta-step-awake";
/** Fields that take letters: in a choice or a tick nothing is written. */
export const WRITTEN_IN = "input:not([type=radio], [type=checkbox], [type=range], [type=file]), textarea, select, [contenteditable=true]";
let awake = false;

/** Does something once the page is awake; at once where it is. Never on the server. */
export function onceAwake(act: () => void): void {
  if (typeof document === "undefined") return;
  if (awake) act();
  else document.addEventListener(AWAKE, act, { once: true });
}

/**
 * Keeps what is done before the page has woken up, and does it then: what is drawn can be clicked, filled in and given a file, chosen or dropped, the keys of the
 * house can be pressed, and what nothing hears would be lost. Runs as a script of the page itself, before anything else is loaded. What was typed is put in anew, as a change from nothing: waking up, the page may have
 * cleared the field, or taken what it found there for what it had drawn. All in the order in which it was done, each when what the one before has set going is
 * drawn, and nothing of the person's in between.
 */
const KEEP = `(() => {
  const carriesFiles = (event) => event.dataTransfer !== null && event.dataTransfer.types.includes("Files");
  // beside the place for it a file would take the page's own place in the window
  const beside = (event) => {
    if (event.defaultPrevented || !carriesFiles(event)) return;
    event.preventDefault();
    event.dataTransfer.dropEffect = "none";
  };
  addEventListener("dragover", beside);
  addEventListener("drop", beside);
  const kept = [];
  let passing = false;
  const keep = (event, element, value, again) => {
    event.stopImmediatePropagation();
    kept.push([element, again, value]);
  };
  const click = (event) => {
    if (passing) return;
    const hit = event.target instanceof Element && event.target.closest("button, [role=button], summary, label, input[type=checkbox], input[type=radio]");
    if (!hit || (hit.control && hit.control.type === "file")) return;
    event.preventDefault();
    keep(event, hit, null, () => press(hit));
  };
  // parts of a picture are no elements of HTML: they have no click of their own, and Enter makes none of it
  const press = (hit) => (hit.click ? hit.click() : hit.dispatchEvent(new MouseEvent("click", { bubbles: true, cancelable: true })));
  const keydown = (event) => {
    if (passing) return;
    const { target, key, ctrlKey, metaKey, shiftKey } = event;
    const chosen = (key === "Enter" || key === " ") && target instanceof SVGElement && target.matches("[role=button]");
    const held = ctrlKey || metaKey;
    const letter = held ? key.toLowerCase() : key;
    const ofTheHouse = (held && !shiftKey && letter === "k") || (((held && letter === "z") || letter === "?") && !target.closest("${WRITTEN_IN}"));
    if (!chosen && !ofTheHouse) return;
    event.preventDefault();
    const pressed = { key, ctrlKey, metaKey, shiftKey, bubbles: true, cancelable: true };
    keep(event, target, null, chosen ? () => press(target) : () => target.dispatchEvent(new KeyboardEvent("keydown", pressed)));
  };
  // what was carried is held for the moment of its event only: the files are taken out of it
  const drop = (event) => {
    const place = event.target instanceof Element && event.target.closest("[data-takes=files]");
    if (passing || !place || !carriesFiles(event)) return;
    event.preventDefault();
    const dataTransfer = new DataTransfer();
    for (const file of event.dataTransfer.files) dataTransfer.items.add(file);
    keep(event, place, null, () => place.dispatchEvent(new DragEvent("drop", { bubbles: true, cancelable: true, dataTransfer })));
  };
  const dragover = (event) => {
    if (event.target instanceof Element && event.target.closest("[data-takes=files]")) event.preventDefault();
  };
  const change = (event) => {
    const { target, type } = event;
    if (passing || (type === "change") !== (target.type === "file" || target instanceof HTMLSelectElement)) return;
    const at = kept.findIndex(([element]) => element === target);
    const [before] = at < 0 ? [] : kept.splice(at, 1);
    // waking up, the page may clear a field in the middle of a word
    const value = before && event.inputType === "insertText" && target.value === event.data ? before[2] + event.data : target.value;
    keep(event, target, value, () => {
      if (type === "input") {
        target.value = "";
        Object.getOwnPropertyDescriptor(Object.getPrototypeOf(target), "value").set.call(target, value);
      }
      target.dispatchEvent(new Event(type, { bubbles: true }));
    });
  };
  const heard = { click, keydown, input: change, change, drop, dragover };
  for (const type in heard) document.addEventListener(type, heard[type], true);
  const next = () => {
    const [element, again] = kept.shift() ?? [];
    if (!element) {
      for (const type in heard) document.removeEventListener(type, heard[type], true);
      return;
    }
    passing = true;
    if (element.isConnected) again();
    passing = false;
    queueMicrotask(next);
  };
  document.addEventListener("${AWAKE}", next, { once: true });
})();`;

/** The script that keeps what is done early. @param nonce of the page's content security policy */
export function KeepEarly({ nonce }: { nonce: string | undefined }) {
  return <script nonce={nonce} dangerouslySetInnerHTML={{ __html: KEEP }} suppressHydrationWarning />;
}

/**
 * Stands last on the page: when it is there, all of it is. A moment later, since effects of the parts around it run after its own: the router hears of a new
 * address only from then on.
 */
export function Awake() {
  useEffect(() => {
    const timer = setTimeout(() => {
      awake = true;
      document.dispatchEvent(new Event(AWAKE));
    });
    return () => clearTimeout(timer);
  }, []);
  return null;
}
