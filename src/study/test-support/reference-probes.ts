import type { ReferenceSet } from "@/core/test-support/reference-set";

type Setting = Record<string, unknown>;

interface Asked {
  probe: Setting;
  /** The ladder it needs with other standard errors. */
  hc3?: true;
}

const sd = (variable: string) => ({ variable });
const percentiles = (variable: string) => ({ variable, values: { by: "percentiles" } });
const at = (variable: string, values: number[]) => ({ variable, values: { by: "own", values } });
const probe = (id: string, ladder: string, focal: string, moderators: Setting[], step: number | null = null) => ({
  id,
  ladder,
  focal,
  moderators,
  step,
});

/** The probes that a set's blocks of section 6 ask for, and whether its ladder is needed with HC3 errors as well. */
export function probesOf({ json, expected }: ReferenceSet): Asked[] {
  const { focal, moderator } = json.spec;
  const asked: Asked[] = [];
  if (focal) {
    const values = [["mean_sd", sd(moderator)], ["percentiles", percentiles(moderator)], ["own", at(moderator, json.spec.moderator_own_values ?? [1])]] as const; // prettier-ignore
    for (const [id, one] of values) {
      asked.push({ probe: probe(`${id}_classical`, "main", focal, [one]) });
      asked.push({ probe: probe(`${id}_hc3`, "main_hc3", focal, [one]), hc3: true });
    }
    asked.push({ probe: probe("reversed", "main", moderator, [sd(focal)]) });
  }
  if (expected.simple_slopes_cluster_robust) asked.push({ probe: probe("clusters", "main", "wind", [sd("crew")]) });
  if (expected.cell_means) asked.push({ probe: probe("cells", "main", "guide", [sd("ticket")]) });
  if (expected.numeric_by_three_levels) asked.push({ probe: probe("three_levels", "numeric_by_three_levels", "interest", [sd("ticket")]) });
  if (expected.three_way_slopes) asked.push({ probe: probe("three_way", "main", "noise", [sd("focus"), sd("breaks")]) });
  if (expected.several_two_way) {
    asked.push({ probe: probe("several", "several_two_way", "noise", [sd("focus"), sd("breaks")]) });
  }
  if (expected.square) asked.push({ probe: probe("square", "square", "daylight", [sd("daylight")], 2) });
  return asked;
}

/** Ours for a block of section 6; undefined where none of ours corresponds to it. */
export function ownProbes(name: string, values: any, document: any): unknown {
  const found = (id: string) => document.probes?.[id];
  const flat = (of: any) => Object.fromEntries(Object.entries<any>(of).map(([key, slope]) => [key, { at: slope.at, ...slope.effect }]));
  const slopes = (id: string) => found(id) && flat(found(id).slopes);
  const region = (id: string, key = "all") => {
    const { shares, holds, share_holds, ...rest } = found(id).regions[key];
    return {
      ...rest,
      pattern: `significant ${holds === "between" ? "between" : "outside"} the bounds`,
      share_below: shares[0],
      share_between: shares[1],
      share_above: shares[2],
      share_significant: share_holds,
    };
  };
  switch (name) {
    case "simple_slopes":
      if (values.classical)
        return { classical: slopes("mean_sd_classical"), hc3: slopes("mean_sd_hc3"), difference: found("mean_sd_classical")?.differences };
      return Object.fromEntries(Object.keys(values).map((by) => [by, { classical: slopes(`${by}_classical`), hc3: slopes(`${by}_hc3`) }]));
    case "simple_slopes_reversed_roles":
      return slopes("reversed");
    case "category_effect_at_values":
      return Object.fromEntries(
        Object.entries<any>(found("reversed").slopes).map(([key, slope]) => [
          key,
          { at: Object.values(slope.at)[0], ...slope.effect["track - lane"] },
        ]),
      );
    case "johnson_neyman":
      return { classical: region("mean_sd_classical"), hc3: region("mean_sd_hc3"), reversed_roles: region("reversed") };
    case "plot":
      return found("mean_sd_classical")?.predicted;
    case "simple_slopes_cluster_robust":
      return slopes("clusters");
    case "cell_means": {
      const { predicted, slopes: effects, differences } = found("cells");
      const cells = Object.entries<any>(predicted).flatMap(([ticket, of]) =>
        Object.entries<any>(of).map(([guide, cell]) => [`${ticket} & ${guide}`, cell]),
      );
      const effect = (ticket: string) => `(ticket=${ticket}: audio - none)`;
      return {
        cells: Object.fromEntries(cells),
        simple_effects: Object.fromEntries(
          Object.entries<any>(effects).map(([ticket, one]) => [`ticket=${ticket}: audio - none`, one.effect["audio - none"]]),
        ),
        differences_of_differences: Object.fromEntries(
          Object.entries<any>(differences).map(([key, one]) => {
            // ours is the first level's minus the second's, theirs the other way round
            const [first, second] = key.split(" - ");
            const d = one["audio - none"];
            return [`${effect(second!)} - ${effect(first!)}`, { ...d, estimate: -d.estimate, t: -d.t, lower: -d.upper, upper: -d.lower }];
          }),
        ),
      };
    }
    case "numeric_by_three_levels":
      return { simple_slopes: slopes("three_levels"), slope_differences: found("three_levels").differences };
    case "three_way_slopes":
      return slopes("three_way");
    case "slope_differences":
      return found("three_way").differences;
    case "several_two_way":
      return { slopes: slopes("several"), johnson_neyman_of_focus_at_mean_of_breaks: region("several", "mean") };
    case "square":
      return { slope_of_daylight: slopes("square"), predicted: found("square").predicted };
    default:
      return undefined;
  }
}
