import { z } from "zod";
import type { TheoryResult } from "../analyse/analyse-theory";
import type { StudyParts } from "../model/context";
import { Hypothesis, hypothesisNames } from "../model/hypothesis";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import { Theory } from "../model/theory";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const Spec = z.strictObject({ theory: Theory, hypotheses: z.array(Hypothesis), ladders: z.array(Ladder) });
type Spec = z.infer<typeof Spec>;

const testing = ({ hypotheses, ladders }: StudyParts) => ladders.filter((l) => hypotheses.some((h) => h.ladder === l.id));

const named = ({ codebook, scales }: StudyParts, name: string) =>
  codebook.some((v) => v.name === name) || scales.some((s) => s.id === name);

/** How all hypotheses of the study stand: together, for their family is corrected together. */
export const theory = {
  kind: "theory",
  list: "theories",
  schema: Theory,
  id: ObjectId,
  word: "Level and family",
  many: "Level and family",
  fieldWords: { alpha: "level", holm: "Holm over the family", delta: "smallest effect that matters" },
  place: "theory",
  idOf: (t: Theory) => t.id,
  nameOf: () => "level and family of hypotheses",
  spec: Spec,
  specOf: (t: Theory, study: StudyParts) => ({
    theory: t,
    hypotheses: study.hypotheses.map((h) => ({ ...h, text: "", since: null, changes: [] })),
    ladders: testing(study).map((l) => ({ ...bareLadder(l), exploratory: l.exploratory, searchedOn: l.searchedOn })),
  }),
  needs: (_: Theory, study: StudyParts) => ({
    // what a hypothesis names may be gone: it then waits
    names: study.hypotheses
      .flatMap(hypothesisNames)
      .filter((name) => named(study, name))
      .map((name) => ({ name })),
    filters: study.hypotheses.flatMap(({ rests }) =>
      rests.on === "correlation" && study.filters.some((f) => f.id === rests.respondents) ? [rests.respondents] : [],
    ),
    objects: testing(study).map(({ id }) => ({ kind: "ladder", id })),
  }),
  load: () => import("../analyse/theory-analysis"),
  headline: (result: TheoryResult) => [
    { name: "hypotheses supported", value: result.stands.filter((s) => s.verdict === "supported").length },
  ],
} satisfies KeptKind<"theory", "theories", Theory> & AskedKind<"theory", Theory, Spec, TheoryResult>;
