import { database } from "./database";
import { responsesRepository } from "./repositories/responses-repository";
import { sweepUploads } from "./uploads";

/** Opens the database and removes what was looked at and never taken: datasets no study holds, files of a day ago. */
export async function startServer(): Promise<void> {
  responsesRepository(database()).sweep();
  await sweepUploads();
}
