import { act, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { laterField, laterPart, type Meanwhile, type Typed } from "./later";

interface Props {
  label: string;
}
const Plain = ({ label, typed = "", onType, away }: Props & Meanwhile) => (
  <>
    <input aria-label={`plain ${label}`} autoFocus value={typed} onChange={(event) => onType(event.target.value)} />
    {away && "away"}
  </>
);
const Whole = ({ label, typed = "" }: Props & Typed) => <input aria-label={label} autoFocus defaultValue={typed} />;

/** A field whose code comes, or does not, when it is told to. */
function held() {
  let asked = 0;
  let settle: { come: () => void; fail: () => void } = { come: () => {}, fail: () => {} };
  const Field = laterField<Props>(() => {
    asked++;
    return new Promise((resolve, reject) => (settle = { come: () => resolve({ default: Whole }), fail: () => reject(new Error("away")) }));
  }, Plain);
  return { Field, asked: () => asked, come: () => act(async () => settle.come()), fail: () => act(async () => settle.fail()) };
}
const user = userEvent.setup({ delay: null });

test("what is typed before a field's code has come stands in the field that comes, which has the keys from then on", async () => {
  const { Field, come } = held();
  render(<Field label="Name" />);
  await user.keyboard("Tutor");
  expect(screen.getByRole("textbox", { name: "plain Name" })).toHaveValue("Tutor");
  await come();
  const field = screen.getByRole("textbox", { name: "Name" });
  expect(field).toHaveValue("Tutor");
  expect(field).toHaveFocus();
  expect(screen.queryByRole("textbox", { name: "plain Name" })).toBeNull();
});

test("once its code is there a field is drawn in the moment in which it is opened, and its code is not asked for again", async () => {
  const { Field, asked, come } = held();
  const { unmount } = render(<Field label="Name" />);
  await come();
  unmount();
  render(<Field label="Name" />);
  expect(screen.getByRole("textbox", { name: "Name" })).toHaveValue(""); // and holds nothing of the one before
  expect(asked()).toBe(1);
});

test("two that are open at once wait for the same code, and each keeps what was typed in it", async () => {
  const { Field, asked, come } = held();
  render(
    <>
      <Field label="One" />
      <Field label="Other" />
    </>,
  );
  await user.type(screen.getByRole("textbox", { name: "plain One" }), "first");
  await user.type(screen.getByRole("textbox", { name: "plain Other" }), "second");
  await come();
  expect(screen.getByRole("textbox", { name: "One" })).toHaveValue("first");
  expect(screen.getByRole("textbox", { name: "Other" })).toHaveValue("second");
  expect(asked()).toBe(1);
});

test("while the code cannot be had the plain field does, says so and loses nothing; the next one asks again", async () => {
  const { Field, asked, come, fail } = held();
  const { unmount } = render(<Field label="Name" />);
  await user.keyboard("Tu");
  expect(screen.queryByText("away")).toBeNull();
  await fail();
  expect(screen.getByText("away")).toBeInTheDocument();
  await user.keyboard("tor");
  expect(screen.getByRole("textbox", { name: "plain Name" })).toHaveValue("Tutor");
  unmount();
  render(<Field label="Name" />);
  await waitFor(() => expect(asked()).toBe(2));
  await come();
  expect(screen.getByRole("textbox", { name: "Name" })).toBeInTheDocument();
});

/** A part whose code comes, or does not, when it is told to. */
function heldPart() {
  let settle: { come: () => void; fail: () => void } = { come: () => {}, fail: () => {} };
  const Part = laterPart<Props>(
    () =>
      new Promise(
        (resolve, reject) => (settle = { come: () => resolve(({ label }) => <p>{label}</p>), fail: () => reject(new Error("away")) }),
      ),
  );
  return { Part, come: () => act(async () => settle.come()), fail: () => act(async () => settle.fail()) };
}

test("a part that cannot be had says so in its place, leaves what is around it, and comes when it is asked for again", async () => {
  const { Part, come, fail } = heldPart();
  render(
    <>
      <h1>Around</h1>
      <Part label="The trail" />
    </>,
  );
  expect(screen.queryByRole("alert")).toBeNull();
  await fail();
  expect(screen.getByRole("alert")).toHaveTextContent("This part could not be fetched: Beta Step does not answer.");
  await user.click(screen.getByRole("button", { name: "Try again" }));
  await come();
  expect(screen.getByText("The trail")).toBeInTheDocument();
  expect(screen.queryByRole("alert")).toBeNull();
  expect(screen.getByRole("heading", { name: "Around" })).toBeInTheDocument();
});
