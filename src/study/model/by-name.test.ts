import { byName } from "./by-name";

test("it finds what a search from the front finds, also where a name stands twice; a changed list is another list", () => {
  const names = ["b", "a", "b", "constructor", "", "ä"];
  const list = names.map((name, at) => ({ name, at }));
  for (const name of [...names, "c", "toString"]) expect(byName(list, name)).toBe(list.find((one) => one.name === name));
  const changed = [...list, { name: "c", at: 9 }];
  expect(byName(changed, "c")?.at).toBe(9);
  expect(byName(list, "c")).toBeUndefined();
});
