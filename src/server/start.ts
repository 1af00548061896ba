import { rmSync } from "node:fs";
import path from "node:path";
import { database, dataFolder } from "./database";

/** Opens the database and removes uploads that a crash left on their way in. */
export function startServer(): void {
  database();
  rmSync(path.join(dataFolder(), "uploads"), { recursive: true, force: true });
}
