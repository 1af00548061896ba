import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { ConfigProvider } from "antd";
import type { ReactNode } from "react";
import { FieldWord } from "./FieldWord";
import { matches } from "./matches";
import { SettingWord } from "./SettingWord";
import { pStatement } from "@/study/report/format-number";
import { plain, R2, SYMBOL, words } from "@/study/report/words";
import { Said } from "./Said";

const show = (children: ReactNode) =>
  render(<ConfigProvider theme={{ zeroRuntime: true, token: { motion: false } }}>{children}</ConfigProvider>);
const user = userEvent.setup({ pointerEventsCheck: 0, delay: null });

test("a setting's word opens in place, takes a choice by typing, and is a word again", async () => {
  const chosen: string[] = [];
  const choices = [
    { value: "a", label: "Age", group: "Numbers" },
    { value: "sc", label: "Speaking confidence", search: "SC", group: "Scales" },
  ];
  show(<SettingWord label="Outcome" value="a" text="Age" choices={choices} onChange={(value) => chosen.push(value)} />);
  await user.click(screen.getByRole("button", { name: "Outcome: Age" }));
  // the list is fetched when it is opened: until then a plain field stands there
  await user.type(await screen.findByRole("combobox", { name: "Outcome" }, { timeout: 60_000 }), "conf");
  expect(screen.getAllByRole("option", { hidden: true })).toHaveLength(1);
  await user.click(screen.getByText("Speaking confidence"));
  expect(chosen).toEqual(["sc"]);
  expect(await screen.findByRole("button", { name: "Outcome: Age" })).toBeInTheDocument(); // its text is the caller's to change
});

test("Escape leaves a setting as it was", async () => {
  const chosen: string[] = [];
  show(
    <SettingWord
      label="Rule"
      value="mean"
      text="mean"
      choices={[
        { value: "mean", label: "mean" },
        { value: "sum", label: "sum" },
      ]}
      onChange={(v) => chosen.push(v)}
    />,
  );
  await user.click(screen.getByRole("button", { name: "Rule: mean" }));
  await user.keyboard("{ArrowDown}{Escape}");
  await waitFor(() => expect(screen.getByRole("button", { name: "Rule: mean" })).toHaveFocus()); // in the next frame
  expect(chosen).toEqual([]);
});

test("a typed word keeps what can be read, says its rule for what cannot, and Escape leaves it", async () => {
  const kept: number[] = [];
  const field = (
    <FieldWord
      label="Points"
      text="5"
      rule="A number, please."
      read={(typed) => (/^\d+$/.test(typed) ? Number(typed) : null)}
      onChange={(v) => kept.push(v)}
    />
  );
  show(field);
  await user.click(screen.getByRole("button", { name: "Points: 5" }));
  await user.clear(screen.getByRole("textbox", { name: "Points" }));
  await user.type(screen.getByRole("textbox", { name: "Points" }), "many{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("A number, please.");
  await user.keyboard("{Escape}");
  expect(kept).toEqual([]);
  await user.click(screen.getByRole("button", { name: "Points: 5" }));
  await user.keyboard("7{Enter}");
  expect(kept).toEqual([7]);
});

test("a search finds a choice by its words or its variable name, whatever the case", () => {
  expect([
    matches(" CONF ", { search: "Speaking confidence SC" }),
    matches("sc", { search: "Speaking confidence SC" }),
    matches("x", { search: "Age" }),
  ]).toEqual([true, true, false]);
});

test("runs are printed as they are: symbols in italics, Greek ones and words upright, a statistic on one line", () => {
  const said = words`Core adds 21 % (${pStatement(0.0001)}); ${SYMBOL.M} = 3.20, α = .89, ${R2} .34; an n beside.`;
  const { container } = show(<Said>{said}</Said>);
  expect([...container.querySelectorAll("i")].map((i) => i.textContent)).toEqual(["p", "M", "R"]);
  expect(container.textContent).toBe("Core adds 21 % (p\u00a0<\u00a0.001); M\u00a0=\u00a03.20, α\u00a0=\u00a0.89, R² .34; an n beside.");
  expect(plain(said)).toBe("Core adds 21 % (p < .001); M = 3.20, α = .89, R² .34; an n beside.");
});
