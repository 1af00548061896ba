import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Papa from "papaparse";
import { computeFile } from "./compute-file";

/** Designs and names that people's data have now and then, as files, against 80 digits worked out by a script that shares nothing with this program. */
const folder = mkdtempSync(path.join(tmpdir(), "beta-step-odd-"));
afterAll(() => rmSync(folder, { recursive: true }));

async function results(columns: Record<string, string[]>, study: object): Promise<any> {
  const [studyFile, dataFile] = [path.join(folder, "study.json"), path.join(folder, "data.csv")];
  const names = Object.keys(columns);
  const rows = columns[names[0]!]!.map((_, row) => names.map((name) => columns[name]![row]!));
  writeFileSync(studyFile, JSON.stringify({ format: "beta-step-study", version: 1, name: "x", ...study }));
  writeFileSync(dataFile, `${Papa.unparse([names, ...rows], { newline: "\n" })}\n`);
  return computeFile(studyFile, dataFile);
}

const DESIGNS: any[] = JSON.parse(readFileSync(path.join(process.cwd(), "reference/odd-designs/designs.json"), "utf8")).designs;

test.each(DESIGNS.map((design) => ({ name: design.name as string, design })))("$name", async ({ design }) => {
  const categories = Object.entries<any>(design.categories);
  const { ladders } = await results(design.columns, {
    codebook: categories.map(([name, { levels }]) => ({ name, kind: "category", levels: levels.map((value: string) => ({ value })) })),
    ladders: [
      {
        id: "l",
        name: "L",
        outcome: "y",
        centring: design.centring,
        categories: categories.map(([variable, { coding, reference }]) => ({ variable, coding, reference })),
        steps: design.steps.map((terms: string[][], k: number) => ({ id: `s${k}`, terms: terms.map((components) => ({ components })) })),
      },
    ],
  });
  const far: string[] = [];
  const compare = (what: string, got: unknown, expected: string | null, floor = 0) => {
    if (expected === null) return expect([what, got]).toEqual([what, null]);
    const wanted = Number(expected);
    const off = Math.abs((got as number) - wanted) / Math.max(Math.abs(wanted), floor);
    if (!(off <= design.tolerance) && !(got === wanted)) far.push(`${what}: ${String(got)} for ${expected} (${off.toExponential(1)})`);
  };
  design.expected.forEach((step: any, k: number) => {
    const { model, coef, change, collinearity } = ladders.l.steps[k + 1];
    const at = (what: string) => `step ${k + 1} ${what}`;
    compare(at("R2"), model.R2, step.R2);
    compare(at("SSE"), model.ss_residual, step.sse);
    compare(at("F"), model.F, step.F);
    compare(at("p of F"), model.pF, step.pF);
    compare(at("s"), model.s, step.s);
    compare(at("ΔR²"), change.dR2, step.dR2, 1e-6);
    compare(at("F of the change"), change.F, step.F_change, 1e-6);
    compare(at("p of the change"), change.p, step.p_change);
    expect(Object.keys(coef).sort()).toEqual(["(Intercept)", ...Object.keys(step.coef)].sort());
    for (const [key, wanted] of Object.entries<any>(step.coef)) {
      // a coefficient is told to so many digits of its own error: near 0 there are no more
      compare(at(`${key} b`), coef[key].b, wanted.b, Math.abs(Number(wanted.se)));
      compare(at(`${key} SE`), coef[key].se, wanted.se);
      compare(at(`${key} t`), coef[key].t, wanted.t, 1);
      compare(at(`${key} p`), coef[key].p, wanted.p);
      compare(at(`${key} tolerance`), collinearity.columns[key].tolerance, wanted.tolerance);
      compare(at(`${key} β`), ladders.l.standardized[k + 1][key].beta, step.beta[key], 1e-3);
    }
  });
  expect(far).toEqual([]);
});

/** What people call their variables, and what programs would take for something else. */
const NAMES = [
  ...[
    "a*b",
    "a:b",
    "a[b]",
    "[a]",
    "*",
    "a*",
    "a[",
    'a"]',
    '"a"',
    "'a'",
    "`a`",
    "(Intercept)",
    "(a)",
    "{a}",
    "$a",
    "${a}",
    "#a",
    "@a",
    "=a",
    "+a",
    "-a",
  ],
  ...[
    "1a",
    "3.5",
    "-9",
    "1e5",
    "2024",
    "a b",
    "a,b",
    "a;b",
    "a|b",
    "a.b",
    "a..b",
    "a?",
    "a!",
    "a~b",
    "a^b",
    "a=b",
    "a<b",
    "<b>x</b>",
    "a&b",
    "a%b",
    "a\\b",
  ],
  ...[
    "é",
    "a\u0301",
    "naïve",
    "Größe",
    "心",
    "🙂",
    "👩‍👩‍👧",
    "مرحبا",
    "עברית",
    "q١",
    "constructor",
    "toString",
    "hasOwnProperty",
    "length",
    "NaN",
    "null",
  ],
  ...["undefined", "true", "Infinity", "if", "x".repeat(200)],
];

test("numbers do not depend on what a variable is called", async () => {
  const wave = (k: number) => Array.from({ length: 40 }, (_, i) => String(Math.round(1e4 * Math.sin(i * k + k * k)) / 1e4));
  const [first, b, y] = [wave(1.3), wave(2.9), wave(0.7)];
  const g = Array.from({ length: 40 }, (_, i) => ["u", "v", "w"][i % 3]!);
  const numbersOf = (value: unknown): number[] =>
    typeof value === "number" ? [value] : value !== null && typeof value === "object" ? Object.values(value).flatMap(numbersOf) : [];
  const told = async (name: string) => {
    const product = { components: [name, "b"] };
    const steps = [
      { id: "1", terms: [{ components: [name] }, { components: ["b"] }, { components: ["g"] }] },
      { id: "2", terms: [product, { components: [name, "g"] }, { components: [name, name] }] },
    ];
    const { ladders, scales, variables } = await results(
      { [name]: first, b, y, g },
      {
        codebook: [
          { name: "g", kind: "category" },
          { name, kind: "number" },
        ],
        scales: [{ id: "s", name: "S", items: [{ variable: name }, { variable: "b" }] }],
        ladders: [{ id: "l", name: "L", outcome: "y", steps }],
      },
    );
    expect(Object.keys(variables)).toContain(name);
    const { steps: fitted, standardized, influence, marginal_means } = ladders.l;
    // a name of digits comes first in a list by name: what is told is the same
    return [fitted, standardized, influence, marginal_means, scales].flatMap(numbersOf).sort((p, q) => p - q);
  };
  const plain = await told("plain");
  expect(plain.length).toBeGreaterThan(500);
  expect(NAMES.length).toBeGreaterThanOrEqual(60);
  for (const name of NAMES) expect([name, await told(name)]).toEqual([name, plain]);
});
