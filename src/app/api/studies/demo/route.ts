import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { demoStudy } from "../../../../../demo/demo-study";

/** The made-up study, to try everything on: loaded where it is not there yet. */
export const POST = route("studies.demo", async () => Response.json({ id: await demoStudy(database()) }, { status: 201 }));
