import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { copyStudy } from "@/server/study-list";

/** The study once more, on the same responses. */
export const POST = route<{ studyId: string }>("studies.copy", (_request, { studyId }) =>
  Response.json({ id: copyStudy(database(), studyId).id }, { status: 201 }),
);
