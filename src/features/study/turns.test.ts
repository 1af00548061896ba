import { Turns } from "./turns";

const going = new AbortController().signal;

test("one thing at a time, in the order they came; what belongs to it runs beside it, and a fault ends its turn", async () => {
  const turns = new Turns();
  const told: string[] = [];
  const ends = new Map<string, () => void>();
  const work =
    (name: string, fails = false) =>
    () =>
      new Promise<void>((resolve, reject) => {
        told.push(`${name} begins`);
        ends.set(name, () => (fails ? reject(new Error(name)) : resolve()));
      });
  const a1 = turns.take("a", going, work("a1"));
  const b = turns.take("b", going, work("b", true));
  const c = turns.take("c", going, work("c"));
  const a2 = turns.take("a", going, work("a2"));
  await Promise.resolve();
  expect(told).toEqual(["a1 begins", "a2 begins"]);
  ends.get("a1")!();
  await a1;
  expect(told).not.toContain("b begins");
  ends.get("a2")!();
  await a2;
  await Promise.resolve();
  ends.get("b")!();
  await expect(b).rejects.toThrow("b");
  await Promise.resolve();
  ends.get("c")!();
  await c;
  expect(told).toEqual(["a1 begins", "a2 begins", "b begins", "c begins"]);
});

test("what is stopped while it waits never begins, and holds nobody up", async () => {
  const turns = new Turns();
  let end = () => {};
  const first = turns.take("a", going, () => new Promise<void>((resolve) => (end = resolve)));
  const stop = new AbortController();
  const begun = jest.fn();
  const second = turns.take("b", stop.signal, () => Promise.resolve(begun()));
  const late = turns.take("a", AbortSignal.abort(), () => Promise.resolve(begun()));
  const third = turns.take("c", going, () => Promise.resolve("done"));
  stop.abort();
  await expect(second).rejects.toThrow();
  await expect(late).rejects.toThrow(); // stopped before it asked, though it was its turn
  await Promise.resolve();
  end();
  await first;
  await expect(third).resolves.toBe("done");
  expect(begun).not.toHaveBeenCalled();
});
