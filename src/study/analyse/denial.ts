/**
 * Words by which an item denies what others affirm, in a few languages. A hint to look at the wording, never a verdict: the answers decide.
 */
const DENIALS = new Set(
  [
    "not never no nobody none nothing hardly rarely seldom scarcely little without unable cannot unlikely unless lose fail fails lack lacks avoid",
    "nicht nie niemals kein keine keinen keiner kaum selten wenig ohne",
    "niet nooit geen nauwelijks zelden weinig zonder",
    "pas jamais aucun aucune rarement guère sans",
    "nunca jamás ningún ninguna apenas raramente sin",
  ].flatMap((words) => words.split(" ")),
);

/** The word by which a wording denies something; null when there is none. */
export function denialIn(wording: string): string | null {
  for (const [word] of wording.toLocaleLowerCase().matchAll(/[\p{L}]+(?:['’]\p{L}+)?/gu)) {
    if (DENIALS.has(word) || /n['’]t$/.test(word)) return word;
  }
  return null;
}
