import { keptKind } from "../kinds/kinds";
import type { Change } from "../model/edit";
import type { RevisionKind } from "../model/history";

/** The changes of a revision as lines of the trail: what was taken out and put back elsewhere was moved. */
export function trailLines(changes: readonly Change[]): string[] {
  const taken = new Map(changes.filter((c) => c.to === null).map((c) => [`${c.subject} ${c.id}`, c]));
  const put = (c: Change) => (c.from === null ? taken.get(`${c.subject} ${c.id}`) : undefined);
  const moved = new Set(changes.flatMap((c) => (put(c) ? [put(c)!] : [])));
  return changes
    .filter((c) => !moved.has(c))
    .map((c) => {
      const from = put(c);
      return from ? `${keptKind(c.subject).word} ${nameIn(c.subject, asObject(c.to))} moved` : changeWords(c);
    });
}

/** What an object is called: by its own name, or as its kind calls it. */
function nameIn(subject: string, object: Record<string, unknown> | null): string {
  return text(object, "name") || (subject === "block" ? keptKind(subject).nameOf(object) : String(object?.["id"] ?? ""));
}

/** A change as one line of the trail: what, and from what to what. Answers of respondents are not in it, but for a corrected cell's. */
export function changeWords(change: Change): string {
  const from = asObject(change.from);
  const to = asObject(change.to);
  switch (change.subject) {
    case "name":
      return `Study renamed from “${String(change.from)}” to “${String(change.to)}”`;
    case "responses":
      if (change.from === null && to?.["rows"] === 0) return "Begun as a plan, without answers";
      if (change.from === null) return `${rowsOf(to)} taken in from ${text(to, "fileName")}`;
      return `Responses: from ${text(from, "fileName")} (${rowsOf(from)}) to ${text(to, "fileName")} (${rowsOf(to)})`;
    case "correction": {
      const one = to ?? from;
      const cell = `${text(one, "variable")} of respondent ${String(one?.["row"])}`;
      if (!to) return `Correction of ${cell} taken back`;
      return `${cell} corrected from ${value(to["from"])} to ${value(to["to"])}`;
    }
    default: {
      const what = keptKind(change.subject).word;
      const name = nameIn(change.subject, to ?? from) || change.id;
      if (!from) return `${what} ${name} ${change.subject === "variable" ? "added" : "made"}`;
      if (!to) return `${what} ${name} taken away`;
      if (change.subject === "block") return `${what} ${name} changed`;
      const parts = fieldsChanged(from, to, keptKind(change.subject).fieldWords);
      return `${what} ${name}: ${parts.length === 0 ? "no difference" : parts.join("; ")}`;
    }
  }
}

/** A revision's heading: what kind of step it was. */
export function revisionWords(how: RevisionKind, of: number | null): string | null {
  if (how === "undo") return `Change ${of} taken back`;
  if (how === "redo") return `Done again what ${of} had taken back`;
  if (how === "restore") return `Gone back to how the study stood after ${of}`;
  if (how === "withdrawal") return "One respondent withdrew and was erased. Nothing before can be gone back to.";
  return null;
}

function fieldsChanged(from: Record<string, unknown>, to: Record<string, unknown>, words: Readonly<Record<string, string>> = {}): string[] {
  const keys = [...new Set([...Object.keys(from), ...Object.keys(to)])];
  return keys
    .filter((key) => JSON.stringify(from[key] ?? null) !== JSON.stringify(to[key] ?? null))
    .map((key) => {
      const [before, after] = [short(from[key]), short(to[key])];
      const name = words[key] ?? key;
      return before === null || after === null ? `${name} changed` : `${name} from ${before} to ${after}`;
    });
}

/** A value in a few words; null when it takes too many. */
function short(given: unknown): string | null {
  if (given === null || given === undefined || given === "") return "nothing";
  if (Array.isArray(given)) {
    if (given.length === 0) return "none";
    return given.length <= 8 && given.every((v) => typeof v === "string" || typeof v === "number") ? given.join(", ") : null;
  }
  if (typeof given === "object") {
    const { low, high } = given as { low?: unknown; high?: unknown };
    return low === undefined || high === undefined ? null : `${String(low)} to ${String(high)}`;
  }
  const words = String(given);
  return words.length > 90 ? null : typeof given === "string" ? `“${words}”` : words;
}

const asObject = (given: unknown): Record<string, unknown> | null =>
  given !== null && typeof given === "object" ? (given as Record<string, unknown>) : null;
const text = (of: Record<string, unknown> | null, key: string) => (typeof of?.[key] === "string" ? of[key] : "");
const rowsOf = (of: Record<string, unknown> | null) => (typeof of?.["rows"] === "number" ? `${of["rows"]} respondents` : "respondents");
const value = (given: unknown) => (given === null ? "nothing" : String(given));
