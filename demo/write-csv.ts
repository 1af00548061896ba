import { writeFileSync } from "node:fs";
import path from "node:path";
import { canalStreetCsv } from "./canal-street";

/** `npm run demo:csv` writes the demo's data file anew; its test holds the file against the generator. */
writeFileSync(path.join(process.cwd(), "demo", "canal-street.csv"), canalStreetCsv());
