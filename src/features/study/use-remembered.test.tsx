import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useRemembered } from "./use-remembered";

const user = userEvent.setup({ pointerEventsCheck: 0, delay: null });
const words = (kept: unknown) => (Array.isArray(kept) && kept.every((k) => typeof k === "string") ? (kept as string[]) : null);

function Columns({ name }: { name: string }) {
  const [columns, setColumns] = useRemembered(name, words, ["b"]);
  return <button onClick={() => setColumns([...columns, "t"])}>{columns.join(" ")}</button>;
}

test("a choice shows everywhere at once and is there when the page comes again", async () => {
  const { unmount } = render(
    <>
      <Columns name="shared" />
      <Columns name="shared" />
      <Columns name="other" />
    </>,
  );
  await user.click(screen.getAllByRole("button")[0]!);
  expect(screen.getAllByRole("button").map((b) => b.textContent)).toEqual(["b t", "b t", "b"]);
  unmount();
  render(<Columns name="shared" />);
  expect(screen.getByRole("button")).toHaveTextContent("b t");
  expect(localStorage.getItem("beta-step shared")).toBe('["b","t"]');
});

test.each(["{", '{"a":1}', "[1]", "null"])("what was kept and is none (%s) gives way to the first choice", (kept) => {
  localStorage.setItem("beta-step broken", kept);
  render(<Columns name="broken" />);
  expect(screen.getByRole("button")).toHaveTextContent("b");
});

test("where the browser keeps nothing the choice still holds on this page", async () => {
  const keep = jest.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new Error("denied");
  });
  render(<Columns name="denied" />);
  await user.click(screen.getByRole("button"));
  expect(screen.getByRole("button")).toHaveTextContent("b t");
  keep.mockRestore();
});
