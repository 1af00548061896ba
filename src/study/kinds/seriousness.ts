import type { Seriousness } from "../analyse/responses/seriousness";
import type { StudyParts } from "../model/context";
import { RespondentScreens } from "../model/respondent-screens";
import { askedFor } from "../prepare/answers/attention";
import type { AskedKind } from "./kind";

/** From where on somebody counts. */
export interface SeriousnessBounds {
  /** Lowest progress that counts; null: the highest there is. */
  progress: number | null;
  /** Least time that counts, in the variable's unit; null: a third of the median. */
  duration: number | null;
  /** So many items with one and the same answer are too many. */
  straight: number;
}

const ROLES = [
  ["progress", /^(progress|percent[ _]?complete[d]?|completion|fortschritt|lastpage|last page)\b/i, "number"],
  ["finished", /^(finished|completed?|beendet|abgeschlossen|terminé|terminado|completato|voltooid|ukończono)$/i, "category"],
  ["duration", /duration|interview ?time|time[ _]taken|minutes[ _]taken|completion[ _]time|seconds[ _]taken|dauer|bearbeitungszeit|durée|duración|duração|durata|czas wypełniania/i, "number"],
  ["consent", /consent|agree to (take part|participate)|einwilligung|einverständnis|consentement|consentimiento|consentimento|consenso|toestemming|zgoda na|onam|persetujuan/i, "category"],
  ["preview", /^(status|response ?type|distribution ?channel|mode|preview|test ?run|channel)$/i, "category"],
] as const; // prettier-ignore

/** Who answered in earnest: what a file tells of how each respondent went through the questions. */
export const seriousness = {
  kind: "seriousness",
  spec: RespondentScreens,
  specOf: ({ progress, duration, straight }: SeriousnessBounds, { codebook, derived }: StudyParts) => {
    const made = new Set(derived.map((d) => d.name));
    const found = ROLES.flatMap(([is, pattern, kind]) => {
      const fits = codebook.filter(
        (v) => (v.kind === kind || (kind === "category" && v.kind === "text")) && (pattern.test(v.name) || pattern.test(v.label)),
      );
      const variable = fits.find((v) => !made.has(v.name)) ?? fits[0];
      if (!variable) return [];
      const below = is === "progress" ? progress : is === "duration" ? duration : undefined;
      return [{ is, variable: variable.name, ...(below === undefined ? {} : { below }) }];
    });
    const attention = codebook.flatMap((v) => {
      const asked = made.has(v.name) ? null : askedFor(v);
      return asked === null ? [] : [{ is: "attention" as const, variable: v.name, asked }];
    });
    return { roles: [...found, ...attention], file: codebook.filter((v) => !made.has(v.name)).map((v) => v.name), straight };
  },
  needs: (_: SeriousnessBounds, { codebook }: StudyParts) => ({ names: codebook.map(({ name }) => ({ name })) }),
  load: () => import("../analyse/responses/seriousness"),
} satisfies AskedKind<"seriousness", SeriousnessBounds, RespondentScreens, Seriousness>;
