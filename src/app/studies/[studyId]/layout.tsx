import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { StudyProvider } from "@/features/study/study-context";
import { StudyFrame } from "@/features/study/StudyFrame";
import { database } from "@/server/database";
import { NotFoundError } from "@/server/errors";
import { seenRepository } from "@/server/repositories/seen-repository";
import { studiesRepository } from "@/server/repositories/studies-repository";

export const dynamic = "force-dynamic";

export default async function StudyLayout({ params, children }: { params: Promise<{ studyId: string }>; children: ReactNode }) {
  const { studyId } = await params;
  const { saved, seen } = load(studyId);
  return (
    <StudyProvider id={saved.id} study={saved.study} revision={saved.revision} seen={seen}>
      <StudyFrame>{children}</StudyFrame>
    </StudyProvider>
  );
}

function load(studyId: string) {
  try {
    const db = database();
    return { saved: studiesRepository(db).load(studyId), seen: seenRepository(db).list(studyId) };
  } catch (error) {
    if (error instanceof NotFoundError) notFound();
    throw error;
  }
}
