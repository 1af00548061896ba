import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { StudyProvider } from "@/features/study/study-context";
import { StudyFrame } from "@/features/study/StudyFrame";
import { database } from "@/server/database";
import { NotFoundError } from "@/server/errors";
import { studiesRepository } from "@/server/repositories/studies-repository";

export const dynamic = "force-dynamic";

export default async function StudyLayout({ params, children }: { params: Promise<{ studyId: string }>; children: ReactNode }) {
  const { studyId } = await params;
  const saved = load(studyId);
  return (
    <StudyProvider id={saved.id} study={saved.study} revision={saved.revision}>
      <StudyFrame>{children}</StudyFrame>
    </StudyProvider>
  );
}

function load(studyId: string) {
  try {
    return studiesRepository(database()).load(studyId);
  } catch (error) {
    if (error instanceof NotFoundError) notFound();
    throw error;
  }
}
