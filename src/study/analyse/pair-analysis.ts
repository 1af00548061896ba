import type { PairSpec } from "../model/look";
import type { Analysis } from "../kinds/kind";
import { analysePair, type PairLook } from "./analyse-pair";

export const analysis: Analysis<PairSpec, PairSpec, PairLook> = { run: analysePair };
