import { cache } from "react";
import { database } from "@/server/database";
import { studiesRepository } from "@/server/repositories/studies-repository";

/** The study of an address, read once for all parts of a page. @throws NotFoundError, StorageError */
export const savedStudy = cache((studyId: string) => studiesRepository(database()).load(studyId));
