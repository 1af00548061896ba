/**
 * `npm run attack`: what docs/trust.md promises, tried. Four attacks, or those named: `npm run attack -- files kills clients growth`. KILLS, CLIENT_S and GROWTH_MIN make them
 * shorter. Needs a built application; ends with exit code 1 when a promise was broken.
 */
import { readdirSync, statSync } from "node:fs";
import path from "node:path";
import { BetaStep } from "../e2e/beta-step";
import { hostileFiles } from "./attack/hostile-files";
import { pings } from "./attack/pings";
import { memoryOf } from "./attack/processes";

const wanted = process.argv.slice(2);
const isWanted = (attack: string) => wanted.length === 0 || wanted.includes(attack);
const broken: string[] = [];
const say = (line: string) => process.stdout.write(`${line}\n`);
const promise = (kept: boolean, what: string) => {
  say(`${kept ? "kept  " : "BROKEN"} ${what}`);
  if (!kept) broken.push(what);
};
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const app = new BetaStep(4700, true);

/** What the routes answer, as far as it is asked for here. */
interface Told {
  id: string;
  code?: string;
  message?: string;
  understanding: { options: unknown; fault: { code: string; message: string } | null };
}
interface Answer {
  status: number;
  body: Told;
}
interface End {
  done?: { id: string };
  fault?: { status: number; code: string; message: string };
}
interface Loaded {
  study: { responses: { dataset: string; rows: number } };
  revision: number;
}
async function upload(name: string, bytes: Uint8Array): Promise<Answer> {
  const response = await app.ask("/api/uploads", {
    method: "POST",
    headers: { "x-file-name": encodeURIComponent(name) },
    body: bytes as unknown as BodyInit,
  });
  return { status: response.status, body: (await response.json()) as Told };
}
/** @param first told when the first line has come: how far it is, or the end */
async function take(id: string, options: unknown, first: () => void = () => {}): Promise<End> {
  const body = JSON.stringify({ options, as: { kind: "study" } });
  const response = await app.ask(`/api/uploads/${id}/take`, { method: "POST", body });
  let text = "";
  for await (const piece of response.body!) {
    if (text === "") first();
    text += Buffer.from(piece).toString();
  }
  return JSON.parse(text.trim().split("\n").at(-1)!) as End;
}
const studies = async () => (await (await app.ask("/api/studies")).json()) as { id: string; name: string }[];
const load = async (id: string) => (await (await app.ask(`/api/studies/${id}`)).json()) as Loaded;
const edit = (id: string, revision: number, edits: unknown[]) =>
  app.ask(`/api/studies/${id}/edits`, { method: "POST", body: JSON.stringify({ revision, edits, id: crypto.randomUUID() }) });
const csv = (rows: number, columns = 20) =>
  Buffer.from(
    `${Array.from({ length: columns }, (_, k) => `q${k}`).join(",")}\n${`${Array.from({ length: columns }, (_, k) => k % 7).join(",")}\n`.repeat(rows)}`,
  );
const bytesOf = (folder: string): number =>
  readdirSync(folder, { recursive: true }).reduce<number>((sum, name) => sum + statSync(path.join(folder, String(name))).size, 0);

/** Each hostile file is answered within 5 s in a sentence, with little memory, while others are served. */
async function files(): Promise<void> {
  await wait(3000);
  const idle = memoryOf(app.processId!);
  const others = pings(`${app.address}/api/studies`, app.key);
  const before = (await studies()).length;
  const took: { name: string; ms: number; mb: number; ping: number; status: number; code: string }[] = [];
  const words: string[] = [];
  for (const { name, make } of hostileFiles()) {
    const bytes = make();
    await wait(100); // connections that were closed while the file was made are noticed
    let [mb, running] = [0, true];
    await others.longest();
    const watch = (async () => {
      while (running) {
        mb = Math.max(mb, memoryOf(app.processId!) - idle);
        await wait(20);
      }
    })();
    const begun = performance.now();
    const { status: arrived, body } = await upload(name, bytes);
    let [status, refusal] = [arrived, body as { code?: string; message?: string }];
    let ms = performance.now() - begun;
    if (status === 201 && body.understanding.fault === null) {
      const taking = performance.now();
      let heard = 0;
      const end = await take(body.id, body.understanding.options, () => (heard = performance.now() - taking));
      // one that is taken in tells how far it is; one that is refused is answered by its refusal
      ms = Math.max(ms, end.done ? heard : performance.now() - taking);
      if (end.done) {
        status = 200;
        const response = await app.ask(`/api/studies/${end.done.id}`, { method: "DELETE" });
        if (!response.ok) throw new Error("a study could not be deleted");
      } else [status, refusal] = [end.fault!.status, end.fault!];
    } else if (status === 201) [status, refusal] = [422, body.understanding.fault!];
    running = false;
    await watch;
    const ping = await others.longest();
    if (refusal.message !== undefined) words.push(refusal.message);
    took.push({ name, ms, mb, ping, status, code: refusal.code ?? "" });
    const worst = ms > 2000 || mb > 300 || ping > 150 || status >= 500;
    if (worst)
      say(`       ${name}: ${Math.round(ms)} ms, +${Math.round(mb)} MB, others ${Math.round(ping)} ms, ${status} ${refusal.code ?? ""}`);
  }
  await others.end();
  const most = (of: (t: (typeof took)[number]) => number) => took.reduce((a, b) => (of(b) > of(a) ? b : a));
  const [ms, mb, ping] = [most((t) => t.ms), most((t) => t.mb), most((t) => t.ping)];
  promise(took.length >= 150, `${took.length} hostile files`);
  promise(
    took.every((t) => t.status < 500),
    "none ends in a fault of ours",
  );
  promise(
    words.every((word) => word.length < 700 && !/\n\s+at |undefined|\[object/.test(word)),
    "each refusal is a sentence",
  );
  promise(ms.ms < 5000, `the slowest is answered after ${Math.round(ms.ms)} ms (${ms.name})`);
  promise(mb.mb < 400, `the largest takes ${Math.round(mb.mb)} MB above idle (${mb.name})`);
  promise(ping.ping < 200, `others wait ${Math.round(ping.ping)} ms at most (${ping.name})`);
  promise((await studies()).length === before, "nothing half-imported");
}

/** The server is killed in the middle of edits, imports and appends: what it acknowledged is there, and nothing else. */
async function kills(): Promise<void> {
  const rounds = Number(process.env.KILLS ?? 200);
  let [acknowledged, lost, half, seed] = [0, 0, 0, 3];
  const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
  const { body } = await upload("first.csv", csv(50));
  const { id } = (await take(body.id, body.understanding.options)).done!;
  for (let round = 0; round < rounds; round++) {
    const known = (await studies()).length;
    let { revision } = await load(id);
    let last: string | null = null;
    let stop = false;
    const working = (async () => {
      while (!stop) {
        const name = `Round ${round} edit ${revision}`;
        const saved = await edit(id, revision, [{ subject: "name", to: name }])
          .then((answer) => (answer.ok ? (answer.json() as Promise<{ revision: number }>) : null))
          .catch(() => null);
        if (!saved) return;
        revision = saved.revision;
        last = name;
        acknowledged++;
      }
    })();
    const importing =
      round % 2 === 0
        ? (async () => {
            const sent = await upload("more.csv", csv(20_000));
            return await take(sent.body.id, sent.body.understanding.options);
          })().catch(() => null)
        : Promise.resolve(null);
    await wait(50 + random() * 900);
    await app.kill();
    stop = true;
    await working;
    const done = (await importing)?.done !== undefined;
    await app.start();
    const now = await load(id);
    if (last !== null && now.revision < revision) lost++;
    const list = (await studies()).length;
    // one whose answer did not arrive may be there whole, never in part
    if (done ? list !== known + 1 : list > known + 1) half++;
    for (const study of await studies()) {
      const { study: document } = await load(study.id);
      const rows = (
        await app.ask(`/api/datasets/${document.responses.dataset}/cells`, {
          method: "POST",
          body: JSON.stringify({ names: ["q0"], rows: [document.responses.rows - 1] }),
        })
      ).ok;
      if (!rows) half++;
      if (study.id !== id) await app.ask(`/api/studies/${study.id}`, { method: "DELETE" });
    }
  }
  promise(lost === 0, `${rounds} kills: ${lost} of ${acknowledged} acknowledged edits lost`);
  promise(half === 0, `${half} half imports`);
}

/** Fifty people at once for a minute. */
async function clients(): Promise<void> {
  const seconds = Number(process.env.CLIENT_S ?? 60);
  const end = Date.now() + seconds * 1000;
  let [asked, failed] = [0, 0];
  const { body } = await upload("shared.csv", csv(2000));
  const { id } = (await take(body.id, body.understanding.options)).done!;
  const { study } = await load(id);
  const person = async (k: number) => {
    const sent = await upload(`own ${k}.csv`, csv(200));
    const own = (await take(sent.body.id, sent.body.understanding.options)).done!.id;
    let { revision } = await load(own);
    while (Date.now() < end) {
      const answers = await Promise.all([
        app.ask(`/studies/${id}/ladders`),
        app.ask(`/api/datasets/${study.responses.dataset}/columns?name=q1&name=q2`),
        edit(own, revision, [{ subject: "name", to: `Own ${k} ${revision}` }]),
      ]);
      revision++;
      asked += answers.length;
      failed += answers.filter((answer) => !answer.ok).length;
      await Promise.all(answers.map((answer) => answer.arrayBuffer()));
    }
  };
  await Promise.all(Array.from({ length: 50 }, (_, k) => person(k)));
  promise(failed === 0, `50 clients for ${seconds} s: ${failed} of ${asked} requests failed`);
}

/** Mixed use for a while: neither memory nor files grow without end. */
async function growth(): Promise<void> {
  const minutes = Number(process.env.GROWTH_MIN ?? 20);
  const end = Date.now() + minutes * 60_000;
  const marks: { mb: number; files: number }[] = [];
  // an answer that nobody takes is held by the server
  const whole = async (answer: Promise<Response>) => (await answer).arrayBuffer();
  const round = async () => {
    const sent = await upload("round.csv", csv(5000));
    const { id } = (await take(sent.body.id, sent.body.understanding.options)).done!;
    for (let k = 1; k <= 10; k++) await whole(edit(id, k, [{ subject: "name", to: `Round ${k}` }]));
    await whole(app.ask(`/studies/${id}/responses`));
    await upload("broken.csv", Buffer.from("a,b\n1\n"));
    await whole(app.ask(`/api/studies/${id}`, { method: "DELETE" }));
    await whole(app.ask(`/api/studies/${id}/erase`, { method: "POST", body: JSON.stringify({ name: "Round 10" }) }));
  };
  for (let k = 0; k < 30; k++) await round(); // what is kept once is kept by then
  while (Date.now() < end) {
    await round();
    marks.push({ mb: memoryOf(app.processId!), files: bytesOf(app.data) });
  }
  const part = Math.max(1, Math.floor(marks.length / 4));
  const mean = (list: typeof marks, of: (m: (typeof marks)[number]) => number) => list.reduce((sum, m) => sum + of(m), 0) / list.length;
  const [first, last] = [marks.slice(0, part), marks.slice(-part)];
  const [mbBefore, mbAfter] = [mean(first, (m) => m.mb), mean(last, (m) => m.mb)];
  const [before, after] = [mean(first, (m) => m.files), mean(last, (m) => m.files)];
  promise(
    mbAfter < mbBefore * 1.15 + 20,
    `memory over ${minutes} min of mixed use: ${Math.round(mbBefore)} → ${Math.round(mbAfter)} MB (${marks.length} rounds)`,
  );
  promise(after < before * 1.15 + 1e6, `files: ${(before / 1e6).toFixed(1)} → ${(after / 1e6).toFixed(1)} MB`);
}

await app.start();
try {
  for (const [name, attack] of Object.entries({ files, kills, clients, growth })) {
    if (!isWanted(name)) continue;
    say(`\n${name}`);
    await attack();
  }
} finally {
  await app.stop();
}
process.exit(broken.length > 0 ? 1 : 0);
