/** @jest-environment jsdom */
import { fireEvent, render, screen } from "@testing-library/react";
import { layoutLoom } from "./layout-loom";
import { brackets, EDGE, heightOf, LEFT, rowsOf, wedgePlaces } from "./layout-theory";
import { PowerCurve } from "./PowerCurve";
import { SearchLoom } from "./SearchLoom";
import { ShareSteps } from "./ShareSteps";
import { ShiftStairs } from "./ShiftStairs";
import { TheoryLoom } from "./TheoryLoom";

const two = (v: number) => v.toFixed(2);

test("chips of a loom stand in the column of their size, one below the other, and rows never meet", () => {
  const cell = (size: number, ...came: string[]) => ({ size, came, went: size === 3 ? ["gone with a name that is too long"] : [] });
  const rows = [1, 2].map((k) => ({
    key: `m${k}`,
    name: `Method ${k}`,
    cells: [cell(0), cell(1, "a"), cell(3, "Speaking confidence", "c")],
  }));
  for (const room of [300, 790, 2000]) {
    const loom = layoutLoom(rows, 5, room);
    for (const row of loom.rows) {
      expect(row.chips.map((chip) => Math.round((chip.x - loom.left) / loom.cell))).toEqual([1, 3, 3, 3]);
      expect(new Set(row.chips.slice(1).map((chip) => chip.y)).size).toBe(3);
      for (const chip of row.chips) expect(chip.y + 28).toBeLessThanOrEqual(row.y + row.height);
      expect(row.chips.every((chip) => chip.lines.length <= 2)).toBe(true);
    }
    expect(loom.rows[1]!.y).toBeGreaterThanOrEqual(loom.rows[0]!.y + loom.rows[0]!.height);
    expect(loom.rows[1]!.y + loom.rows[1]!.height).toBeLessThan(loom.height);
  }
});

test("the rule of a loom is a slider that keys move by one, to the ends, and never beyond", () => {
  const moves: number[] = [];
  const rows = [{ key: "m", name: "M", cells: [{ size: 0, came: [], went: [] }, { size: 1, came: ["a"], went: [] }] }]; // prettier-ignore
  const lines = [{ name: "R²", points: [{ size: 0, value: 0 }, { size: 4, value: 0.4 }] }]; // prettier-ignore
  const { rerender } = render(
    <SearchLoom title="T" rows={rows} shown="m" lines={lines} faint={[]} most={4} size={4} onSize={(to) => moves.push(to)} format={two} />,
  );
  const rule = screen.getByRole("slider", { name: "Columns that are taken" });
  for (const key of ["ArrowRight", "ArrowLeft", "Home", "End", "a"]) fireEvent.keyDown(rule, { key });
  expect(moves).toEqual([4, 3, 0, 4]);
  rerender(<SearchLoom title="T" rows={rows} shown="m" lines={lines} faint={[]} most={4} size={4} format={two} />);
  expect(screen.queryByRole("slider")).toBeNull(); // one that is saved is a picture
});

test("stairs of a change: every bar begins where the one above ended, from before to after, also where some give and some take", () => {
  const parts = [{ name: "a", taken: 0.3 }, { name: "b", taken: -0.5 }, { name: "c", taken: 0.45 }]; // prettier-ignore
  const { container } = render(
    <ShiftStairs title="T" before={{ name: "b0", value: 0.4 }} after={{ name: "b1", value: 0.15 }} parts={parts} format={two} />,
  );
  const ends = [...container.querySelectorAll("circle")].map((c) => Number(c.getAttribute("cx")));
  let at = ends[0]!;
  const pixels = (ends[1]! - ends[0]!) / (0.15 - 0.4);
  [...container.querySelectorAll("rect")].forEach((bar, k) => {
    const [x, width] = [Number(bar.getAttribute("x")), Number(bar.getAttribute("width"))];
    const to = at - parts[k]!.taken * pixels;
    expect(x).toBeCloseTo(Math.min(at, to), 6);
    expect(x + width).toBeCloseTo(Math.max(at, to), 6);
    at = to;
  });
  expect(at).toBeCloseTo(ends[1]!, 6);
});

test("the interval of a share begins where its tread does, and the axis has room for it", () => {
  const { container } = render(<ShareSteps title="T" parts={[{ name: "a", share: 0.2, quiet: false, lower: 0.1, upper: 0.35 }, { name: "b", share: 0.05, quiet: false }]} format={two} />); // prettier-ignore
  const [bar] = container.querySelectorAll("rect");
  const [, from, length] = /^M([\d.]+) [\d.]+h([\d.]+)/.exec(container.querySelector("path")!.getAttribute("d")!)!.map(Number);
  const pixels = Number(bar!.getAttribute("width")) / 0.2;
  expect(from! - Number(bar!.getAttribute("x"))).toBeCloseTo(0.1 * pixels, 6);
  expect(length).toBeCloseTo(0.25 * pixels, 6);
});

describe("the theory as a picture", () => {
  const claim = (code: string, verdict: string, sign = "+", where = "") => ({ code, sign, verdict, where });
  const picture = {
    outcome: "Y",
    steps: [{ name: "Step 1", claim: null }, { name: "Step 2", claim: claim("H2", "supported") }, { name: "Step 3", claim: null }], // prettier-ignore
    threads: [
      { key: "a", name: "A", step: 0, claims: [claim("H1", "practically nothing", "0")] },
      { key: "x", name: "X", step: 1, claims: [] },
      { key: "m", name: "M", step: 1, claims: [claim("H4", "opposite direction"), claim("H5", "supported")] },
    ],
    wedges: [{ from: "m", on: "x", opens: true, claim: claim("H3", "too uncertain to say") }],
    ties: [],
  };
  test("is told in words: every claim with its sign and verdict, wedges by what they do, steps that add", () => {
    render(<TheoryLoom title="Theory" picture={picture} />);
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
      "Theory: H1 A 0, practically nothing; H4 M +, opposite direction; H5 M +, supported; H3 M strengthens X, too uncertain to say; H2 Step 2 adds, supported",
    );
  });
  test("brackets hold the threads of their steps, and steps without one have none; wedges stand apart; nothing lies outside", () => {
    expect(brackets(picture)).toEqual([{ step: 0, from: 0, to: 0 }, { step: 1, from: 1, to: 2 }]); // prettier-ignore
    const places = wedgePlaces(6);
    places.slice(1).forEach((x, k) => expect(x).toBeGreaterThan(places[k]!));
    expect(rowsOf(picture).at(-1)!.foot).toBeLessThan(heightOf(picture));
  });
  test("reads with twenty hypotheses as with one", () => {
    const many = {
      ...picture,
      threads: Array.from({ length: 20 }, (_, k) => ({
        key: `t${k}`,
        name: `Predictor ${k}`,
        step: 0,
        claims: [claim(`H${k + 1}`, "supported")],
      })),
      wedges: [],
    };
    const { container } = render(<TheoryLoom title="Theory" picture={many} />);
    const heights = [...container.querySelectorAll("text")]
      .filter((t) => /^Predictor/.test(t.textContent!))
      .map((t) => Number(t.getAttribute("y")));
    heights.slice(1).forEach((y, k) => expect(y - heights[k]!).toBe(46));
  });
  test("what is claimed of one thread never runs into the next, however much it is", () => {
    const many = (n: number) => Array.from({ length: n }, (_, k) => claim(`H${n}.${k}`, "supported", "+", k % 2 ? "M at its mean" : ""));
    const crowded = {
      ...picture,
      threads: [6, 1, 9].map((n, k) => ({ key: `t${k}`, name: `T${k}`, step: 0, claims: many(n) })),
      wedges: [],
    };
    const { container } = render(<TheoryLoom title="Theory" picture={crowded} />);
    const lines = [...container.querySelectorAll("text")].filter((t) => Number(t.getAttribute("x")) > 600).map((t) => Number(t.getAttribute("y"))); // prettier-ignore
    expect(lines).toHaveLength(6 + 3 + 1 + 9 + 4);
    lines.slice(1).forEach((y, k) => expect(y - lines[k]!).toBeGreaterThanOrEqual(13));
    expect(lines.at(-1)!).toBeLessThan(heightOf(crowded) - 30);
  });
  test("what is said beside a bracket stands clear of the names beside it and of the next bracket, whatever they are called", () => {
    const long = ["Willingness to communicate", "in the classroom", "with strangers of other languages"].join(" ");
    for (const verdict of ["supported", "not testable yet", "too uncertain to say", "practically nothing"])
      for (const [name, one] of [
        ["Step 1, Background", "Speaking confidence"],
        ["Step 1, all that was known before", long],
        ["Step 1", "Donaudampfschifffahrtsgesellschaft"],
      ]) {
        const steps = [0, 1, 2].map((k) => ({ name: name!.replace("1", String(k + 1)), claim: claim(`H1${k}`, verdict) }));
        const threads = steps.map((_, k) => ({ key: `t${k}`, name: one!, step: k, claims: [] }));
        const { container, unmount } = render(<TheoryLoom title="T" picture={{ ...picture, steps, threads, wedges: [] }} />);
        const all = [...container.querySelectorAll("text")].map((text) => {
          const wide = text.getAttribute("font-family") === "var(--serif)" ? 7.6 : 6.1;
          const [x, y] = [Number(text.getAttribute("x")), Number(text.getAttribute("y"))];
          const apart = text.querySelector("tspan[dy]");
          const letters = apart ? Math.max(...[...text.children].map((part) => part.textContent!.length)) : text.textContent!.length;
          return { x, foot: y + (apart ? Number(apart.getAttribute("dy")) : 0), end: x + wide * letters, begin: x - wide * letters, said: text.textContent! }; // prettier-ignore
        });
        const beside = all.filter(({ x }) => x === 22);
        const names = all.filter(({ x }) => x === LEFT - 12);
        expect(beside.map(({ said }) => said).join(" ")).toContain(`H12 adds ${verdict}`);
        expect(Math.max(...beside.map(({ end }) => end))).toBeLessThan(Math.min(...names.map(({ begin }) => begin)));
        const rows = rowsOf({ ...picture, steps, threads });
        for (const lines of [beside, names])
          lines.forEach(({ foot }, k) => {
            const row = rows[Math.floor((k * 3) / lines.length)]!;
            expect([foot - row.top > 10, row.foot - foot >= 4]).toEqual([true, true]);
          });
        unmount();
      }
  });
  test("the words of a wedge stand beside its line and never run over the edge, however many wedges there are", () => {
    for (const many of [1, 2, 5, 9]) {
      const wedges = Array.from({ length: many }, (_, k) => ({
        from: "m",
        on: "x",
        opens: null,
        claim: claim(`H${k}w`, "too uncertain to say"),
      }));
      const { container } = render(<TheoryLoom title="Theory" picture={{ ...picture, wedges }} />);
      const said = [...container.querySelectorAll('text[fill="var(--pine)"]')];
      expect(said).toHaveLength(2 * many);
      for (const words of said) {
        const [x, width] = [Number(words.getAttribute("x")), 6.3 * words.textContent!.length];
        const ends = words.getAttribute("text-anchor") === "end" ? [x - width, x] : [x, x + width];
        expect(ends[0]).toBeGreaterThan(LEFT - 12);
        expect(ends[1]).toBeLessThan(EDGE);
      }
    }
  });
  test("threads and brackets can be chosen with keys where something begins with them, and not in a saved picture", () => {
    const chosen: unknown[] = [];
    const { rerender } = render(<TheoryLoom title="Theory" picture={picture} begin={(what) => chosen.push(what)} />);
    fireEvent.keyDown(screen.getByRole("button", { name: "Begin with X" }), { key: "Enter" });
    fireEvent.click(screen.getByRole("button", { name: "Begin with Step 2" }));
    expect(chosen).toEqual([{ thread: "x" }, { step: 1 }]);
    rerender(<TheoryLoom title="Theory" picture={picture} />);
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("power over the number of respondents", () => {
  const curve = Array.from({ length: 50 }, (_, k) => ({ n: 10 + 10 * k, power: 1 - Math.exp(-k / 20) }));
  const draw = (own: object) =>
    render(<PowerCurve title="Power of H1" curve={curve} n={210} power={0.63} wanted={0.8} needed={330} shrunk={null} format={(v) => (v ?? 0).toFixed(2)} count={String} {...own} />); // prettier-ignore
  test("says where the sample stands and what is needed; both marks lie on the curve", () => {
    const { container } = draw({});
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe("Power of H1: 0.63 with 210 respondents; 0.80 with 330");
    const points = container.querySelector("path")!.getAttribute("d")!.slice(1).split("L").map((pair) => pair.split(",").map(Number)); // prettier-ignore
    const near = (x: number) => points.reduce((a, b) => (Math.abs(b[0]! - x) < Math.abs(a[0]! - x) ? b : a));
    const dot = container.querySelector("circle")!;
    expect(Math.abs(near(Number(dot.getAttribute("cx")))[1]! - Number(dot.getAttribute("cy")))).toBeLessThan(2);
    const rule = [...container.querySelectorAll("line")].find((l) => l.getAttribute("x1") === l.getAttribute("x2"))!;
    expect(Math.abs(near(Number(rule.getAttribute("x1")))[1]! - Number(rule.getAttribute("y1")))).toBeLessThan(3);
  });
  test("what lies beyond the curve, or cannot be, has no mark; a product has a second one below the first", () => {
    expect(draw({ needed: 9000, power: null }).container.querySelectorAll("circle")).toHaveLength(0);
    const [first, second] = draw({ shrunk: { power: 0.5, needed: 600 } }).container.querySelectorAll("circle");
    expect(Number(second!.getAttribute("cy"))).toBeGreaterThan(Number(first!.getAttribute("cy")));
  });
});
