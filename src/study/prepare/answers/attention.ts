import type { Variable } from "../../model/variable";

/** "Choose Agree here", in several languages: the quoted words, or those that stand where an answer is named. */
const CHOOSE =
  /(?:please |bitte |s'il vous plaît,? |por favor,? |gelieve )?(?:choose|select|tick|pick|click|mark|wählen sie|klicken sie|kreuzen sie|sélectionnez|choisissez|cochez|seleccione|elija|marque|selecione|escolha|kies|selecteer|seleziona|scelga|scegli|wybierz|zaznacz|seçin|işaretleyin|pilih)\b/iu;
const QUOTED = /["'“”‘’„«]\s*([^"'“”‘’„«»]{1,60}?)\s*["'“”‘’»]/u;
const NAMED =
  /(?:choose|select|tick|pick|mark)\s+(?:the (?:answer|option)\s+)?([\p{L}\d][\p{L}\d ]{0,40}?)\s+(?:here|for this (?:item|question|statement|one)|if you|to show|as your answer)/iu;

/** The answer that a question asks to be chosen, to see who reads; null for a question like others. */
export function askedFor({ label }: Pick<Variable, "label">): string | null {
  if (!CHOOSE.test(label)) return null;
  return (QUOTED.exec(label)?.[1] ?? NAMED.exec(label)?.[1] ?? null)?.trim() ?? null;
}
