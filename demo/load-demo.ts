import { database } from "@/server/database";
import { makeKey } from "@/server/house-key";
import { storageFault } from "@/server/storage-faults";
import { sourcesHash } from "../scripts/make-ready.mjs";
import { demoStudy } from "./demo-study";
import { keepFirstNumbers } from "./first-numbers";

/** `npm run demo` reads the study's id from the last line printed. */
try {
  makeKey(); // loading is a start of the house: whoever tells its address has the key at hand
  const study = await demoStudy(database());
  keepFirstNumbers(database(), study, sourcesHash());
  process.stdout.write(`${study}\n`);
} catch (error) {
  const fault = storageFault(error);
  if (!fault) throw error;
  process.stderr.write(`\nThe demo study cannot be loaded (${fault.code}). ${fault.message}\n`);
  process.exit(1);
}
