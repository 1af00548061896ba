import { database } from "@/server/database";
import { route } from "@/server/http/route";
import { takeStudyBack } from "@/server/study-end";

/** A study that was deleted is there again, as it was. */
export const POST = route<{ studyId: string }>("studies.take-back", (_request, { studyId }) => {
  takeStudyBack(database(), studyId);
  return new Response(null, { status: 204 });
});
