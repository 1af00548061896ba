import { listed } from "../format-number";
import type { Watch } from "../watch";
import type { Titles } from "../level-title";

/** What can be done about a caution, as data: the page carries it out. Steps are counted from 1. */
export type LadderFix =
  | { do: "add-term"; step: number; components: string[] }
  | { do: "remove-term"; step: number; components: string[] }
  | { do: "replace-term"; step: number; components: string[]; by: string[] }
  | { do: "replace-name"; name: string; by: string }
  /** A further step with its square. */
  | { do: "square"; variable: string }
  /** Its logarithm in its place. @param lowest value among the respondents */
  | { do: "logarithm"; variable: string; lowest: number }
  | { do: "switch-off"; step: number; components: string[] }
  | { do: "centre" }
  | { do: "classical-errors" }
  | { do: "reference"; variable: string; reference: string }
  | { do: "kind"; variable: string; kind: "category" | "code" }
  | { do: "drop-level"; variable: string; levels: string[] }
  | { do: "leave-out-level"; variable: string; level: string }
  | { do: "combine-levels"; variable: string; levels: string[] }
  | { do: "leave-out-rows"; rows: number[] }
  | { do: "see-row"; row: number }
  | { do: "see-missing" };

export type LadderWatch = Watch<LadderFix>;

/** A remedy as the words of its button. */
export function fixLabel(fix: LadderFix, title: Titles): string {
  const term = (components: readonly string[]) => components.map((name) => title(name)).join(" × ");
  const level = (variable: string, one: string) => title(variable, one);
  switch (fix.do) {
    case "add-term":
      return `Add ${term(fix.components)} to step ${fix.step}`;
    case "remove-term":
      return `Take ${term(fix.components)} out of step ${fix.step}`;
    case "replace-term":
      return `Use ${term(fix.by)} as a product instead`;
    case "replace-name":
      return `Use ${title(fix.by)} instead`;
    case "square":
      return `Add ${title(fix.variable)} squared as a further step`;
    case "logarithm":
      return `Use the logarithm of ${title(fix.variable)} instead`;
    case "switch-off":
      return `Switch ${term(fix.components)} off`;
    case "centre":
      return "Centre at the mean";
    case "classical-errors":
      return "Use classical errors";
    case "reference":
      return `Make ${level(fix.variable, fix.reference)} the reference`;
    case "kind":
      return fix.kind === "category" ? `Make ${title(fix.variable)} a category` : `Make ${title(fix.variable)} a respondent code`;
    case "drop-level":
      return `Take ${listed(fix.levels.map((one) => level(fix.variable, one)))} out of the codebook`;
    case "leave-out-level":
      return `Leave out ${level(fix.variable, fix.level)}`;
    case "combine-levels":
      return `Combine ${listed(fix.levels.map((one) => level(fix.variable, one)))}`;
    case "leave-out-rows":
      return fix.rows.length === 1 ? `Leave row ${fix.rows[0]} out` : `Leave all ${fix.rows.length} out`;
    case "see-row":
      return `See row ${fix.row}`;
    case "see-missing":
      return "See who left what open";
  }
}
