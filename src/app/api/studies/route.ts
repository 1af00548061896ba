import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { studiesRepository } from "@/server/repositories/studies-repository";

/** The list of studies. */
export const GET = route("studies.list", () => Response.json(studiesRepository(database()).list()));
