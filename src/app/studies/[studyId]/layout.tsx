import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { StudyProvider } from "@/features/study/study-context";
import { StudyFrame } from "@/features/study/StudyFrame";
import { database } from "@/server/database";
import { NotFoundError } from "@/server/errors";
import { seenRepository } from "@/server/repositories/seen-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { undoable } from "@/study/model/history";
import { StorageError } from "@/server/storage-faults";
import { fromHouse, HouseFault } from "../../house-fault";
import { savedStudy } from "./saved-study";

export const dynamic = "force-dynamic";

export default async function StudyLayout({ params, children }: { params: Promise<{ studyId: string }>; children: ReactNode }) {
  const { studyId } = await params;
  const found = fromHouse("page.study", () => load(studyId));
  if (found instanceof StorageError) return <HouseFault fault={found} />;
  const { saved, seen, turns } = found;
  return (
    <StudyProvider id={saved.id} study={saved.study} revision={saved.revision} turns={turns} seen={seen}>
      <StudyFrame>{children}</StudyFrame>
    </StudyProvider>
  );
}

function load(studyId: string) {
  try {
    const db = database();
    const saved = savedStudy(studyId);
    return { saved, seen: seenRepository(db).list(studyId), turns: undoable(studiesRepository(db).marks(studyId)) };
  } catch (error) {
    if (error instanceof NotFoundError) notFound();
    throw error;
  }
}
