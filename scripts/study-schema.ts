import { z } from "zod";
import { Study } from "@/study/model/study";

/** The JSON Schema of the study document as text, from the same Zod schema the program parses with. */
export function studySchema(): string {
  const schema = z.toJSONSchema(Study, { io: "input" });
  const described = {
    ...schema,
    title: "Beta Step study document",
    description:
      "Everything a researcher decided about a study, without the responses. Rules across fields (names used once, items and terms that exist) are checked when it is read.",
  };
  return `${JSON.stringify(described, null, 2)}\n`;
}
