import { readFileSync } from "node:fs";
import path from "node:path";
import { studySchema } from "./study-schema";

test("the published JSON Schema is the one the program parses with", () => {
  expect(readFileSync(path.join(process.cwd(), "docs", "study.schema.json"), "utf8")).toBe(studySchema());
});
