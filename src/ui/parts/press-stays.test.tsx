import { render, screen } from "@testing-library/react";
import { PressStays } from "./PressStays";

const told: string[] = [];
const tell = (what: string) => () => void told.push(what);
beforeEach(() => {
  told.length = 0;
  render(
    <>
      <PressStays />
      <button onClick={tell("button")}>Keep</button>
      <button onClick={tell("other")}>Remove</button>
      <svg>
        <g role="button" aria-label="thread" onClick={tell("part of a picture")} />
      </svg>
      <p>beside</p>
    </>,
  );
});
/** A hand that presses one thing and lets go over another, so many pixels on. */
function hand(from: Element, to: Element, moved: number) {
  const event = (type: string, clientX: number) =>
    Object.assign(new MouseEvent(type, { bubbles: true, button: 0, clientX, clientY: 9 }), { isPrimary: true });
  from.dispatchEvent(event("pointerdown", 9));
  to.dispatchEvent(event("pointerup", 9 + moved));
}
const named = (name: string) => screen.getByRole("button", { name });

test.each([
  ["Keep", "button"],
  ["thread", "part of a picture"],
])("%s counts once when the page moved and the hand did not", (name, word) => {
  hand(named(name), named("Remove"), 1);
  expect(told).toEqual([word]);
});

test("what the hand carried elsewhere, let go in its place, or began on nothing does nothing by itself", () => {
  hand(named("Keep"), named("Remove"), 40);
  hand(named("Keep"), named("Keep"), 0); // the browser's own click follows
  hand(screen.getByText("beside"), named("Keep"), 0);
  expect(told).toEqual([]);
});
