import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { ConfigProvider } from "antd";
import type { ReactNode } from "react";
import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { Ladder } from "@/study/model/ladder";
import { Study } from "@/study/model/study";
import { formatInterval, formatShare } from "@/study/report/format-number";
import { sourceOf } from "@/study/test-support/columns";
import { CoefficientsOverSteps } from "./coefficients/CoefficientsOverSteps";
import { StepInFull } from "./coefficients/StepInFull";
import { Flight } from "./flight/Flight";
import { LaddersDrag } from "./flight/ladders-drag";

const show = (children: ReactNode) =>
  render(<ConfigProvider theme={{ zeroRuntime: true, token: { motion: false } }}>{children}</ConfigProvider>);
const user = userEvent.setup({ pointerEventsCheck: 0, delay: null });

const cells = (f: (i: number) => number) => Array.from({ length: 40 }, (_, i) => String(f(i)));
const wave = (i: number) => Math.sin(i * 12.9898) * 3;
const study = Study.parse({
  format: "beta-step-study",
  version: 1,
  name: "s",
  codebook: [{ name: "y", label: "Joy" }, { name: "a", label: "Effort" }, { name: "b", label: "Help" }, { name: "c" }],
});
const source = sourceOf({
  y: cells((i) => wave(i) + ((i * i) % 11)),
  a: cells(wave),
  b: cells((i) => wave(i + 300)),
  c: cells((i) => i % 7),
});
const ladder = Ladder.parse({
  id: "l",
  name: "L",
  outcome: "y",
  steps: [
    { id: "one", name: "Start", terms: [{ components: ["a"] }] },
    { id: "two", terms: [{ components: ["b"] }, { components: ["a", "b"] }] },
  ],
});
const result = analyseLadder(study, ladder, source);
if (result.status !== "fitted") throw new Error("refused");
const { fit, stepIds, inflations } = result;
const title = (name: string) => study.codebook.find((v) => v.name === name)?.label || name;
const naming = { title, unit: () => "" };
const flight = (of: Ladder, over: object = {}) => (
  <LaddersDrag onDrop={() => undefined}>
    <Flight
      study={study}
      ladder={of}
      fit={fit}
      stepIds={stepIds}
      outdated={false}
      percent="95 %"
      selected={of.steps.length - 1}
      onSelect={() => undefined}
      onChange={() => undefined}
      {...over}
    />
  </LaddersDrag>
);

test("each step shows its own R², ΔR² and test, and its terms as chips that can be removed", async () => {
  const changed: Ladder[] = [];
  show(flight(ladder, { onChange: (to: Ladder) => changed.push(to) }));
  fit.steps.forEach((step, k) => {
    const row = within(screen.getByTestId(`step-${k + 1}`));
    expect(row.getByTestId("r2")).toHaveTextContent(formatShare(step.model.R2, 3));
    expect(row.getByTestId("delta-r2")).toHaveTextContent(formatShare(step.change.change, 3));
    const between = formatInterval(step.changeInterval!.lower, step.changeInterval!.upper, (v) => formatShare(v, 3));
    expect(row.getByRole("img")).toHaveAccessibleName(
      `Step ${k + 1} raises R² by ${formatShare(step.change.change, 3)} to ${formatShare(step.model.R2, 3)}, 95 % interval of the rise ${between}`,
    );
  });
  await user.click(screen.getByRole("button", { name: "Remove Effort × Help from step 2" }));
  expect(changed[0]!.steps[1]!.terms).toEqual([{ components: ["b"], off: false }]);
});

test("a step keeps its own numbers while others come and go; a new one has none yet", () => {
  const fresh = { id: "new", name: "", terms: [], off: false };
  show(flight({ ...ladder, steps: [fresh, ...ladder.steps] }, { outdated: true }));
  expect(within(screen.getByTestId("step-1")).queryByTestId("r2")).toBeNull();
  expect(within(screen.getByTestId("step-2")).getByTestId("r2")).toHaveTextContent(formatShare(fit.steps[0]!.model.R2, 3));
  expect(within(screen.getByTestId("step-3")).getByTestId("r2")).toHaveTextContent(formatShare(fit.steps[1]!.model.R2, 3));
});

test("chosen chips can be multiplied, switched off and moved; Shift with an arrow key moves one", async () => {
  const changed: Ladder[] = [];
  show(flight(ladder, { onChange: (to: Ladder) => changed.push(to) }));
  const press = (name: string) => user.click(screen.getByRole("button", { name, exact: true } as never));
  await press("Effort");
  await press("Help");
  expect(screen.getByRole("button", { name: "Multiply Effort × Help" })).toBeInTheDocument();
  await press("Switch off");
  expect(changed.at(-1)!.steps.map((s) => s.terms.map((t) => t.off))).toEqual([[true], [true, false]]);
  screen.getByRole("button", { name: "Effort" }).focus();
  await user.keyboard("{Shift>}{ArrowDown}{/Shift}");
  expect(changed.at(-1)!.steps.map((s) => s.terms.map((t) => t.components.join("*")))).toEqual([[], ["b", "a*b", "a"]]);
  await user.keyboard("{Delete}");
  expect(changed.at(-1)!.steps[0]!.terms).toEqual([]);
  screen.getByRole("button", { name: "Step 1" }).focus();
  await user.keyboard("{Shift>}{ArrowDown}{/Shift}");
  expect(changed.at(-1)!.steps.map((s) => s.id)).toEqual(["two", "one"]);
});

test("coefficients stand in the step they belong to, and only there; β and b each with their own numbers", () => {
  const { unmount } = show(
    <CoefficientsOverSteps
      fit={fit}
      told="beta"
      depth={null}
      percent="95 %"
      naming={naming}
      selected={1}
      off={new Set()}
      claims={new Map()}
    />,
  );
  const a = fit.steps[1]!.coefficients.find((c) => c.column === "a")!;
  expect(screen.getByTestId("a@2")).toHaveTextContent(formatShare(a.beta!.estimate));
  expect(screen.queryByTestId("b@1")).toBeNull();
  expect(screen.getAllByText(/not in step 1/)).toHaveLength(2);
  unmount();
  show(
    <CoefficientsOverSteps
      fit={fit}
      told="b"
      depth={null}
      percent="95 %"
      naming={naming}
      selected={1}
      off={new Set()}
      claims={new Map()}
    />,
  );
  expect(screen.getByTestId("a@2")).toHaveTextContent(a.b.estimate.toFixed(2).replace("-", "−"));
});

test("a step in full names df, and has a row for the intercept and each term", () => {
  show(<StepInFull fit={fit} step={1} inflations={inflations[1]!} percent="95 %" naming={naming} told="beta" />);
  expect(screen.getByRole("columnheader", { name: new RegExp(`^t ?\\(${fit.steps[1]!.model.dfResidual}\\)$`) })).toBeInTheDocument();
  expect(screen.getAllByRole("rowheader").map((th) => th.textContent)).toEqual(["Intercept", "Effort", "Help", "Effort × Help"]);
});
