import type { Ladder } from "@/study/model/ladder";
import type { Study } from "@/study/model/study";

/** The ladder that is open: the one the address names, else the first. */
export const openedLadder = ({ ladders }: Pick<Study, "ladders">, id: string | null): Ladder | null =>
  ladders.find((ladder) => ladder.id === id) ?? ladders[0] ?? null;
