import { fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { CutHistogram } from "./CutHistogram";
import { LevelBars } from "./LevelBars";
import { MissingPatternChart } from "./MissingPatternChart";

/** The picture with somebody who takes what it is told, as the recipe does: edges stay in order. */
function Cut({ told }: { told: (edges: number[]) => void }) {
  const [edges, setEdges] = useState([3, 6]);
  return (
    <CutHistogram
      histogram={{ edges: [0, 2, 4, 6, 8, 10], counts: [1, 5, 9, 4, 2] }}
      width={524}
      height={120}
      title="Age"
      edges={edges}
      labels={["young", "middle", "old"]}
      unit={0.5}
      format={String}
      onMove={(edge, to) => {
        const next = edges.with(edge, to);
        setEdges(next);
        told(next);
      }}
    />
  );
}

/** The DOM of the tests has no pointer events with a place; a mouse event of that name has. */
const moveTo = (picture: Element, clientX: number) => fireEvent(picture, new MouseEvent("pointermove", { bubbles: true, clientX }));

test("edges on a distribution are sliders: named by the ranges they part, moved by arrows and by the pointer, to scale", () => {
  let now: number[] = [];
  render(<Cut told={(edges) => (now = edges)} />);
  const first = screen.getByRole("slider", { name: "Edge between young and middle" });
  expect(first).toHaveAttribute("aria-valuenow", "3");
  fireEvent.keyDown(first, { key: "ArrowRight" });
  expect(now).toEqual([3.5, 6]);
  fireEvent.keyDown(screen.getByRole("slider", { name: "Edge between middle and old" }), { key: "PageUp" });
  expect(now).toEqual([3.5, 11]);
  fireEvent.keyDown(first, { key: "x" });
  expect(now).toEqual([3.5, 11]);
  const picture = screen.getByRole("group", { name: "Age cut into young, middle, old" });
  Object.assign(picture, { setPointerCapture: () => undefined });
  // shown at half its measure: 250 of its 500 units between the ends are 125 of the pointer's
  picture.getBoundingClientRect = () => ({ left: 100, width: 262, top: 0, height: 60 }) as DOMRect;
  fireEvent.pointerDown(first, { pointerId: 1 });
  moveTo(picture, 100 + (12 + 250) / 2);
  fireEvent.pointerUp(picture, { pointerId: 1 });
  const moved = now[0]!;
  moveTo(picture, 300);
  expect(now[0]).toBe(moved); // let go is let go
  expect(moved).toBeCloseTo(5.5, 5); // the second edge stands at 11, so the axis runs from 0 to 11
});

test("levels are drawn with their counts and named whole for who cannot see them", () => {
  render(
    <LevelBars
      levels={[
        { name: "a level with a very long name", count: 12 },
        { name: "none", count: 0 },
      ]}
      width={200}
      title="Format"
    />,
  );
  const picture = screen.getByRole("img", { name: "Format: a level with a very long name 12, none 0" });
  const widths = [...picture.querySelectorAll("rect")].map((bar) => Number(bar.getAttribute("width")));
  expect(widths[0]).toBeGreaterThan(50);
  expect(widths[1]).toBe(0);
  expect(picture.textContent).toContain("a level with a v…");
});

test("the pattern of missing answers fills a cell for each gap and says its rows in words", () => {
  const pattern = {
    respondents: 20,
    variables: [],
    gaps: [],
    most: [],
    across: ["q1", "q2"],
    patterns: [
      { open: [false, false], respondents: 15 },
      { open: [true, false], respondents: 4 },
      { open: [true, true], respondents: 1 },
    ],
    otherwise: 0,
  };
  render(<MissingPatternChart pattern={pattern} title={(name) => `${name} in many more words`} />);
  const picture = screen.getByRole("img", {
    name: /^Patterns of missing answers among 20 respondents: 15 with nothing open; 4 with q1 open; 1 with q1, q2 open/,
  });
  expect(picture.querySelectorAll('rect[fill="var(--plum)"]')).toHaveLength(3);
  const bars = [...picture.querySelectorAll('rect[fill="var(--slate)"]')].map((bar) => Number(bar.getAttribute("width")));
  expect(bars[1]! / bars[0]!).toBeCloseTo(4 / 15, 6);
});
