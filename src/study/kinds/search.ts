import { z } from "zod";
import type { SearchResult } from "../analyse/analyse-search";
import { joinedStability, type SearchStability } from "../analyse/joined-stability";
import type { StudyParts } from "../model/context";
import { Ladder } from "../model/ladder";
import { ObjectId } from "../model/names";
import { Search } from "../model/search";
import type { AskedKind, KeptKind } from "./kind";
import { bareLadder } from "./ladder";

const Spec = z.strictObject({ search: Search, ladder: Ladder });
type Spec = z.infer<typeof Spec>;

/** A search for predictors: exploratory, and what comes from it stays so. */
export const search = {
  kind: "search",
  list: "searches",
  schema: Search,
  id: ObjectId,
  word: "Search",
  many: "Searches",
  place: "ladders",
  idOf: (s: Search) => s.id,
  nameOf: ({ ladder, candidates }: Search) => `search among ${candidates.length} for ${ladder}`,
  opens: { at: (s: Search) => `ladders?ladder=${s.ladder}&probe=${s.id}` },
  spec: Spec,
  specOf: (s: Search, study: StudyParts) => ({
    search: { ...s, id: "-", ladder: "-" },
    ladder: bareLadder(study.ladders.find((l) => l.id === s.ladder)!),
  }),
  needs: ({ ladder, candidates, folds }: Search) => ({
    names: [...candidates.map((name) => ({ name })), ...(folds === null ? [] : [{ name: folds, as: "folds", variable: true }])],
    objects: [{ kind: "ladder", id: ladder }],
  }),
  load: () => import("../analyse/search-analysis"),
  headline: (result: SearchResult) =>
    result.status === "refused"
      ? null
      : [
          { name: "columns chosen", value: result.chosen.size },
          { name: "R² of the chosen", value: result.chosen.refitR2 },
        ],
  // what comes out on other respondents moves none of the numbers beside it
  headlineSpec: (spec: Spec) => ({ ...spec, search: { ...spec.search, resamples: null } }),
  joined: (pieces) => joinedStability(pieces as (SearchStability | null)[]),
} satisfies KeptKind<"search", "searches", Search> & AskedKind<"search", Search, Spec, SearchResult>;
