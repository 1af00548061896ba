import type { ReplicateIntervals } from "@/study/model/replicate-intervals";
import { KeptStore } from "./kept-store";

const intervals: ReplicateIntervals = {
  replicates: 1000,
  redrawn: 2,
  units: 60,
  intervals: [
    {
      figure: { kind: "beta", step: 1, column: "a*b" },
      interval: { estimate: 0.2, lower: 0.1, upper: 0.3, method: "percentile", clamped: true, needed: null },
      spread: { edges: [0, 1], counts: [1000] },
    },
  ],
  differences: [],
};

test("what is kept comes back as it was; the key says which", async () => {
  const kept = new Map<string, string>();
  const store = new KeptStore("s", async (url, init) => {
    if (init?.method === "PUT") {
      const body = JSON.parse(String(init.body));
      kept.set(body.key, JSON.stringify(body));
      return new Response(null, { status: 204 });
    }
    const found = kept.get(new URL(url, "http://x").searchParams.get("key")!);
    return found ? new Response(found) : new Response(null, { status: 204 });
  });
  expect(await store.find("00000000000000aa")).toBeNull();
  await store.keep("00000000000000aa", intervals);
  expect(await store.find("00000000000000aa")).toEqual(intervals);
  expect(await store.find("00000000000000ab")).toBeNull();
});

test("a server that is silent, refuses or answers something else costs time alone", async () => {
  const answers: (() => Promise<Response>)[] = [
    () => Promise.reject(new TypeError("offline")),
    async () => Response.json({ code: "internal", message: "No." }, { status: 500 }),
    async () => new Response("<html>"),
    async () => Response.json({ key: "00000000000000aa", intervals: { ...intervals, replicates: "many" } }),
  ];
  for (const answer of answers) {
    const store = new KeptStore("s", answer);
    expect(await store.find("00000000000000aa")).toBeNull();
    await expect(store.keep("00000000000000aa", intervals)).resolves.toBeUndefined();
  }
});
