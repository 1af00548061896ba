import { fireEvent, render, screen, within } from "@testing-library/react";
import { CopyButton } from "@/ui/parts/CopyButton";
import { CorrelationTable } from "@/ui/parts/CorrelationTable";
import { StillComputing } from "@/ui/parts/StillComputing";
import { ChartFrame } from "./ChartFrame";
import { ScreeChart } from "./ScreeChart";

const two = (v: number | null) => (v === null ? "–" : v.toFixed(2));

test("a scree says how many stand above random data; those are filled, the others hollow", () => {
  const { container } = render(
    <ScreeChart eigenvalues={[3, 1.4, 0.4, 0.2]} random={[1.3, 1.1, 0.9, 0.7]} retained={2} title="Eigenvalues" format={two} />,
  );
  expect(screen.getByRole("img", { name: "Eigenvalues. The first 2 of 4 lie above those of random data." })).toBeVisible();
  const dots = [...container.querySelectorAll("circle")];
  expect(dots.map((dot) => dot.getAttribute("fill"))).toEqual(["var(--plum)", "var(--plum)", "var(--paper)", "var(--paper)"]);
  const heights = dots.map((dot) => Number(dot.getAttribute("cy")));
  expect([...heights].sort((a, b) => a - b)).toEqual(heights); // larger eigenvalues stand higher
  expect(dots[1]!.textContent).toBe("2: 1.40, random data 1.10");
  expect(screen.getByText("random data")).toBeVisible();
});

test("a chart can be read as a table instead, and back", () => {
  render(
    <ChartFrame title="Eigenvalues" note="n = 9" table={<p>the numbers</p>}>
      <svg role="img" aria-label="a picture" />
    </ChartFrame>,
  );
  expect(screen.getByRole("img")).toBeVisible();
  expect(screen.queryByText("the numbers")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "As a table" }));
  expect(screen.getByText("the numbers")).toBeVisible();
  expect(screen.queryByRole("img")).toBeNull();
  expect(screen.queryByRole("button", { name: "Save SVG" })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "As a picture" }));
  expect(screen.getByRole("img")).toBeVisible();
});

test("correlations are a table with heads on both sides, each pair once; heavier grounds for stronger ones, none for what is not known", () => {
  const r = [
    [1, 0.62, -0.35],
    [0.62, 1, null],
    [-0.35, null, 1],
  ];
  render(
    <CorrelationTable caption="Among items" names={["a", "b", "c"]} wording={(i) => `item ${i}`} r={(i, j) => r[i]![j]!} format={two} />,
  );
  const table = screen.getByRole("table", { name: "Among items" });
  expect(within(table).getAllByRole("columnheader").map((th) => th.textContent)).toEqual(["a", "b"]); // prettier-ignore
  expect(within(table).getAllByRole("rowheader").map((th) => th.textContent)).toEqual(["b", "c"]); // prettier-ignore
  const cell = (text: string) => within(table).getByRole("cell", { name: text });
  expect(cell("0.62")).toHaveAttribute("title", "b with a: 0.62");
  const strength = (text: string) => Number(/\/ ?([\d.]+)|, ?([\d.]+)\)/.exec(cell(text).style.background)!.slice(1).find(Boolean));
  expect(strength("0.62")).toBeGreaterThan(strength("-0.35"));
  expect(cell("0.62").style.background).not.toMatch(/47 ?,? ?107/); // plum runs together, pine apart
  expect(cell("-0.35").style.background).toMatch(/47,? 107/);
  expect(cell("–").style.background).toBe("transparent");
});

test("a long computation tells how far it is and can be stopped", () => {
  let stopped = 0;
  const { rerender } = render(<StillComputing onStop={() => stopped++} />);
  expect(screen.queryByRole("progressbar")).toBeNull();
  rerender(<StillComputing progress={0.437} onStop={() => stopped++} />);
  expect(screen.getByRole("progressbar", { name: "How far the computation is" })).toHaveAttribute("value", "0.437");
  expect(screen.getByRole("status")).toHaveTextContent("44 %");
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(stopped).toBe(1);
});

test("words are copied as plain text; a browser that does not let it is told of", async () => {
  const copied: string[] = [];
  const clipboard = (writeText: (text: string) => Promise<void>) =>
    Object.defineProperty(navigator, "clipboard", { value: { writeText }, configurable: true });
  clipboard(async (text) => void copied.push(text));
  render(<CopyButton text="M = 3.20" />);
  fireEvent.click(screen.getByRole("button", { name: "Copy" }));
  expect(await screen.findByText("Copied.")).toBeVisible();
  expect(copied).toEqual(["M = 3.20"]);
  clipboard(() => Promise.reject(new Error("no")));
  fireEvent.click(screen.getByRole("button", { name: "Copy" }));
  expect(await screen.findByText(/does not let it be copied/)).toBeVisible();
});
