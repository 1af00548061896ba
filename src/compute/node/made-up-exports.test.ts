import { columnFacts } from "@/files/column-facts";
import { readBytes } from "@/files/test-support/read-bytes";
import { namesOf, openPoints } from "@/study/analyse/responses/open-points";
import { openPoints as kind } from "@/study/kinds/answers";
import { answerKey } from "@/study/model/reading";
import { Study } from "@/study/model/study";
import { answerReader } from "@/study/prepare/answers/read-answers";
import { guessCodebook } from "@/study/prepare/guess-codebook";
import { StudyColumns } from "@/study/prepare/study-columns";
import { cellText } from "@/study/model/response-column";
import { type MadeUpExport, madeUpExport } from "../test-support/made-up-exports";

/** What is wrong in how an export is understood: silently, or in a question that is put. */
async function understood({ content, meant }: MadeUpExport): Promise<{ silent: string[]; asked: string[] }> {
  const { data, columns } = await readBytes(content);
  const silent: string[] = [];
  const asked: string[] = [];
  const is = (wrong: boolean, what: string, to = silent) => void (wrong && to.push(what));
  is(data.options.headerRow !== meant.headerRow, `header in row ${data.options.headerRow}, not ${meant.headerRow}`);
  is(data.options.wordingRow !== meant.wordingRow, `wordings in row ${data.options.wordingRow}, not ${meant.wordingRow}`);
  is(data.rows !== meant.rows, `${data.rows} rows, not ${meant.rows}`);
  const codebook = guessCodebook(data.columns.map(columnFacts));
  const name = (at: number) => codebook[at]!.name;
  for (const [at, wanted] of Object.entries(meant.kinds)) is(codebook[Number(at)]!.kind !== wanted, `column ${at} is a ${codebook[Number(at)]!.kind}, not a ${wanted}`); // prettier-ignore
  const study = Study.parse({ format: "beta-step-study", version: 1, name: "x", codebook });
  const counted = new StudyColumns(study, (wanted) => columns.get(wanted));
  const points = openPoints(kind.specOf({}, study), counted);
  const touched = new Set<number>();
  const about = (places: number[]) => {
    places.forEach((at) => touched.add(at));
    return points.filter((point) => namesOf(point).some((one) => places.map(name).includes(one)));
  };
  for (const { columns: places, values } of meant.sets) {
    const found = about(places);
    const point = found[0];
    if (point?.kind !== "answers" || !places.every((at) => point.set.variables.includes(name(at)))) {
      asked.push(`family at ${places[0]}: ${found.map((one) => `${one.kind} ${namesOf(one).length}`).join(", ") || "nothing"}`);
      continue;
    }
    const got = Object.fromEntries(point.set.answers.flatMap((one) => (one.value === null ? [] : [[answerKey(one.written), one.value]])));
    const wanted = Object.fromEntries(Object.entries(values).map(([word, value]) => [answerKey(word), value]));
    const same = JSON.stringify(Object.entries(got).sort()) === JSON.stringify(Object.entries(wanted).sort());
    is(!same, `family at ${places[0]}: ${JSON.stringify(got)}`, point.set.sure ? silent : asked);
    is(same && !point.set.sure, `family at ${places[0]}: right, and not sure of it`, asked);
  }
  for (const places of meant.asked) {
    const point = about(places)[0];
    // what another family of the file has in full is known here as well
    const alone = point?.kind === "answers" && point.set.variables.length === places.length;
    is(point?.kind !== "answers" || (alone && point.set.sure), `own words at ${places[0]}: ${point?.kind ?? "nothing"}`);
  }
  for (const { column, values } of meant.amounts) {
    const point = about([column])[0];
    if (point?.kind !== "amounts") {
      asked.push(`amounts at ${column}: ${point?.kind ?? "nothing"}`);
      continue;
    }
    const read = answerReader(point.rule);
    // in the unit of the rule, which is the one most are in
    const scale = point.rule.unit === "min" ? 60 : 1;
    const wrong = values.findIndex((value, row) => {
      const written = cellText(columns.get(name(column))!, row);
      const got = written === null ? null : (read(written) ?? (Number.isNaN(Number(written)) ? null : Number(written)));
      return value === null ? got !== null : got === null || Math.abs(got - value * scale) > 1e-9;
    });
    is(wrong >= 0, `amounts at ${column}: row ${wrong} ${cellText(columns.get(name(column))!, Math.max(0, wrong))}`);
  }
  for (const { column, answers } of meant.choices) {
    const point = about([column])[0];
    const got = point?.kind === "choices" ? point.answers.map((one) => one.written).sort() : [];
    is(JSON.stringify(got) !== JSON.stringify([...answers].sort()), `choices at ${column}: ${got.join(", ")}`, asked);
  }
  for (const places of meant.ticks) {
    const point = about(places)[0];
    is(point?.kind !== "ticks" || point.block.length !== places.length, `ticks at ${places[0]}: ${point?.kind ?? "nothing"}`, asked);
  }
  for (const { columns: places, low, high } of meant.ranges) {
    const point = about(places).find((one) => one.kind === "range");
    is(!(point?.kind === "range" && point.low === low && point.high === high), `range at ${places[0]}: ${JSON.stringify(point)}`, asked);
  }
  // nothing is suggested where nothing is to be understood
  const other = points.filter((point) => point.kind !== "minutes" && namesOf(point).some((one) => !touched.has(codebook.findIndex((v) => v.name === one)))); // prettier-ignore
  silent.push(...other.map((point) => `a suggestion nobody needs: ${point.kind} for ${namesOf(point).join(", ")}`));
  return { silent, asked };
}

test("of sixty exports of every shape at least 55 are understood at first sight, and none is misunderstood in silence", async () => {
  const all = await Promise.all(
    Array.from({ length: 60 }, async (_, k) => {
      const made = madeUpExport(k);
      return { name: made.name, ...(await understood(made)) };
    }),
  );
  expect(all.filter(({ silent }) => silent.length > 0)).toEqual([]);
  const right = all.filter(({ asked }) => asked.length === 0);
  expect(all.filter(({ asked }) => asked.length > 0).length).toBeLessThanOrEqual(5);
  expect(right.length).toBeGreaterThanOrEqual(55);
});
