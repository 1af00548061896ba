import type { FirstLook } from "../analyse/analyse-look";
import { Look, LookSpec } from "../model/look";
import { ObjectId } from "../model/names";
import type { AskedKind, KeptKind } from "./kind";

/** Variables and scales looked at before any model. */
export const firstLook = {
  kind: "first-look",
  list: "looks",
  schema: Look,
  id: ObjectId,
  word: "Look",
  place: "first-look",
  idOf: (l: Look) => l.id,
  nameOf: (l: Look) => l.name,
  opens: { at: (l: Look) => `first-look?look=${l.id}`, words: (l: Look) => l.variables.join(" ") },
  spec: LookSpec,
  specOf: ({ variables, respondents, by, cases, correlation, controls, diagonal }: Look) => ({
    variables,
    respondents,
    by,
    cases,
    correlation,
    controls,
    // ω takes a factor solution for each scale and group: only where it is shown
    diagonal,
  }),
  needs: ({ variables, respondents, by, controls, scatters }: Look) => ({
    names: [...new Set([...variables, ...controls, ...(by === null ? [] : [by]), ...scatters.flatMap((s) => [s.x, s.y, ...(s.by === null ? [] : [s.by]), ...s.panels.map((p) => p.variable)])])].map((name) => ({ name })), // prettier-ignore
    filters: [respondents],
  }),
  load: () => import("../analyse/look-analysis"),
  headline: (result: FirstLook) =>
    result.status === "refused" ? null : result.columns.map(({ key, description }) => ({ name: `M of ${key}`, value: description.mean })),
} satisfies KeptKind<"first-look", "looks", Look> & AskedKind<"first-look", Look, LookSpec, FirstLook>;
