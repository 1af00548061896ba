import path from "node:path";

/** The folder of the database and of uploads on their way in: BETA_STEP_DATA, or `data` where the application runs. */
export function dataFolder(): string {
  return path.resolve(/* turbopackIgnore: true */ process.env.BETA_STEP_DATA ?? "data");
}
