import { listCarried } from "./carried";

const names = new Map([["h_1", "the heading Method"], ["t_9", "Table 2"]]); // prettier-ignore
const { announcements, screenReaderInstructions } = listCarried("block", ["x", "h_1", "t_9"], (id) => names.get(String(id)) ?? "");
const at = (active: string, over: string | null) => ({ active: { id: active }, over: over === null ? null : { id: over } }) as never;

test("who cannot see a list hears names and places, never an id", () => {
  const said = [
    announcements.onDragStart(at("h_1", null)),
    announcements.onDragOver(at("h_1", "h_1")),
    announcements.onDragOver(at("h_1", "t_9")),
    announcements.onDragOver(at("h_1", null)),
    announcements.onDragEnd(at("h_1", "t_9")),
    announcements.onDragEnd(at("t_9", null)),
    announcements.onDragCancel(at("t_9", "h_1")),
  ];
  expect(said).toEqual([
    "The heading Method picked up.",
    "The heading Method at place 2 of 3.",
    "The heading Method at place 3 of 3.",
    "The heading Method over no place that takes it.",
    "The heading Method put down at place 3 of 3.",
    "Table 2 stays where it was.",
    "Table 2 stays where it was.",
  ]);
  expect(screenReaderInstructions.draggable).toContain("pick the block up");
});
