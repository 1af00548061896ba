import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { ConfigProvider } from "antd";
import type { ReactNode } from "react";
import { analyseLadder } from "@/study/analyse/analyse-ladder";
import { Ladder } from "@/study/model/ladder";
import { Study } from "@/study/model/study";
import { formatShare } from "@/study/report/format-number";
import { sourceOf } from "@/study/test-support/columns";
import { CoefficientsOverSteps } from "./CoefficientsOverSteps";
import { StepInFull } from "./StepInFull";
import { Steps } from "./Steps";

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
const { fit } = result;
const title = (name: string) => study.codebook.find((v) => v.name === name)?.label || name;

test("each step shows its own R², ΔR² and test, and its terms as chips that can be removed", async () => {
  const changed: Ladder[] = [];
  show(<Steps study={study} ladder={ladder} fit={fit} outdated={false} onChange={(to) => changed.push(to)} />);
  fit.steps.forEach((step, k) => {
    const row = within(screen.getByTestId(`step-${k + 1}`));
    expect(row.getByTestId("r2")).toHaveTextContent(formatShare(step.model.R2, 3));
    expect(row.getByTestId("delta-r2")).toHaveTextContent(formatShare(step.change.change, 3));
    expect(row.getByRole("img")).toHaveAccessibleName(
      `Step ${k + 1} raises R² by ${formatShare(step.change.change, 3)} to ${formatShare(step.model.R2, 3)}`,
    );
  });
  await user.click(screen.getByRole("button", { name: "Remove Effort × Help from step 2" }));
  expect(changed[0]!.steps[1]!.terms).toEqual([{ components: ["b"] }]);
});

test("numbers of a ladder of another shape are not shown beside its steps", () => {
  const longer = { ...ladder, steps: [...ladder.steps, { id: "three", name: "", terms: [], off: false }] };
  show(<Steps study={study} ladder={longer} fit={fit} outdated onChange={() => undefined} />);
  expect(screen.queryByTestId("r2")).toBeNull();
  expect(screen.getByRole("button", { name: "Remove step 3" })).toBeInTheDocument();
});

test("coefficients stand in the step they belong to, and only there; β and b each with their own numbers", () => {
  const { unmount } = show(<CoefficientsOverSteps fit={fit} metric="beta" percent="95 %" title={title} />);
  const a = fit.steps[1]!.coefficients.find((c) => c.column === "a")!;
  expect(screen.getByTestId("a@2")).toHaveTextContent(formatShare(a.beta!.estimate));
  expect(screen.queryByTestId("b@1")).toBeNull();
  expect(screen.getAllByText(/not in step 1/)).toHaveLength(2);
  unmount();
  show(<CoefficientsOverSteps fit={fit} metric="b" percent="95 %" title={title} />);
  expect(screen.getByTestId("a@2")).toHaveTextContent(a.b.estimate.toFixed(2).replace("-", "−"));
});

test("a step in full names df, and has a row for the intercept and each term", () => {
  show(<StepInFull fit={fit} step={1} percent="95 %" title={title} />);
  expect(screen.getByRole("columnheader", { name: new RegExp(`^t ?\\(${fit.steps[1]!.model.dfResidual}\\)$`) })).toBeInTheDocument();
  expect(screen.getAllByRole("rowheader").map((th) => th.textContent)).toEqual(["Intercept", "Effort", "Help", "Effort × Help"]);
});
