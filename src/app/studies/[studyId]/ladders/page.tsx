import type { Metadata } from "next";
import { LadderScreen } from "@/features/ladders/LadderScreen";
import { firstNumbersOf, PROGRAM } from "@/features/study/first-numbers";
import { openedLadder } from "@/features/study/opened-ladder";
import { database } from "@/server/database";
import { firstNumbersRepository } from "@/server/repositories/first-numbers-repository";
import type { FirstNumbers } from "@/study/model/first-numbers";
import { savedStudy } from "../saved-study";

export const metadata: Metadata = { title: "Ladders" };

interface Address {
  params: Promise<{ studyId: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function LaddersPage({ params, searchParams }: Address) {
  const [{ studyId }, { ladder, beside }] = await Promise.all([params, searchParams]);
  return <LadderScreen first={beside === undefined ? first(studyId, typeof ladder === "string" ? ladder : null) : null} />;
}

/** What is kept of the ladder that is opened; null where there is nothing. What is wrong with the study, its frame says. */
function first(studyId: string, ladder: string | null): FirstNumbers | null {
  try {
    const { study } = savedStudy(studyId);
    const opened = openedLadder(study, ladder);
    if (!opened || !study.responses || PROGRAM === "") return null;
    const place = firstNumbersOf(study, opened, PROGRAM);
    const result = firstNumbersRepository(database()).find(studyId, place);
    return result === null ? null : { ...place, result };
  } catch {
    return null;
  }
}
