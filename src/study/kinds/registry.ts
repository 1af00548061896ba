import { added } from "./added";
import { checks, column, look, missing, openPoints, rowList, strips } from "./answers";
import { block } from "./block";
import { comparison } from "./comparison";
import { correction } from "./correction";
import { derived } from "./derived";
import { filter } from "./filter";
import { firstLook } from "./first-look";
import { groups } from "./groups";
import { hypothesis } from "./hypothesis";
import { importance } from "./importance";
import { ladder } from "./ladder";
import { ladderDepth } from "./ladder-depth";
import { means } from "./means";
import { pair } from "./pair";
import { plan } from "./plan";
import { points } from "./points";
import { power } from "./power";
import { probe } from "./probe";
import { reading } from "./reading";
import { residuals } from "./residuals";
import { scale } from "./scale";
import { search } from "./search";
import { seriousness } from "./seriousness";
import { shift } from "./shift";
import { structure } from "./structure";
import { theory } from "./theory";
import { variable } from "./variable";

/**
 * Everything a study holds and everything that can be asked of it, a line each. The document, edits, soundness, the trail, out of date, jobs,
 * kept results, the page's hooks, the results document and the compute command are loops over this list. Lists of the study stand in its order.
 */
export const KINDS = [
  variable,
  correction,
  reading,
  derived,
  filter,
  scale,
  structure,
  ladder,
  comparison,
  probe,
  means,
  groups,
  residuals,
  importance,
  search,
  shift,
  added,
  hypothesis,
  theory,
  power,
  plan,
  block,
  firstLook,
  pair,
  points,
  ladderDepth,
  strips,
  column,
  look,
  checks,
  openPoints,
  seriousness,
  missing,
  rowList,
] as const;
