import { writeFileSync } from "node:fs";
import path from "node:path";
import { studySchema } from "./study-schema";

/** `npm run docs:schema` writes docs/study.schema.json anew; its test holds the file against the schema. */
writeFileSync(path.join(process.cwd(), "docs", "study.schema.json"), studySchema());
