"use client";

import { useEffect } from "react";

/** What is pressed by a click, and does something. */
const PRESSED =
  "button, a[href], summary, label, [role=button], [role=option], .ant-select-item-option, input[type=checkbox], input[type=radio]";
/** A hand that presses moves no farther. */
const STILL_PX = 4;

/**
 * What is pressed counts, though the page moves it away before it is let go: parts above come in while somebody presses a button below, and a browser knows no click that begins
 * on one thing and ends on another. A hand that went elsewhere meant to.
 */
export function PressStays() {
  useEffect(() => {
    let pressed: { what: Element; x: number; y: number } | null = null;
    const down = ({ target, button, isPrimary, clientX: x, clientY: y }: PointerEvent) => {
      const what = button === 0 && isPrimary && target instanceof Element ? target.closest(PRESSED) : null;
      pressed = what && { what, x, y };
    };
    const up = ({ target, clientX, clientY }: PointerEvent) => {
      const was = pressed;
      pressed = null;
      if (!was?.what.isConnected || Math.hypot(clientX - was.x, clientY - was.y) > STILL_PX) return;
      // parts of a picture have no click() of their own
      if (target instanceof Node && !was.what.contains(target))
        was.what.dispatchEvent(new MouseEvent("click", { bubbles: true, cancelable: true }));
    };
    const stop = () => (pressed = null);
    document.addEventListener("pointerdown", down, true);
    document.addEventListener("pointerup", up, true);
    document.addEventListener("pointercancel", stop, true);
    return () => {
      document.removeEventListener("pointerdown", down, true);
      document.removeEventListener("pointerup", up, true);
      document.removeEventListener("pointercancel", stop, true);
    };
  }, []);
  return null;
}
