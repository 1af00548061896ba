import { byName } from "../model/by-name";
import { ObjectId } from "../model/names";
import { Reading } from "../model/reading";
import type { KeptKind } from "./kind";

/** How answers in words are read as numbers. */
export const reading = {
  kind: "reading",
  list: "readings",
  schema: Reading,
  id: ObjectId,
  word: "Reading",
  fieldWords: { rule: "how answers are read", variables: "questions" },
  place: "responses",
  idOf: (r) => r.id,
  nameOf: (r) => r.name,
  needs: ({ variables }) => ({ names: variables.map((name) => ({ name, variable: true })) }),
  faults: (own, { derived, readings }) =>
    own.variables.flatMap((name) => {
      if (byName(derived, name)) return [`"${name}" is worked out from others; it has no answers to read.`];
      const first = readings.find((r) => r.variables.includes(name));
      return first && first.id !== own.id ? [`The answers of "${name}" are read twice: by "${first.name}" and by "${own.name}".`] : [];
    }),
} satisfies KeptKind<"reading", "readings", Reading>;
