import { z } from "zod";
import { TOLD } from "../kinds/kinds";
import { ObjectId } from "./names";

/** What the numbers of an object were when somebody last looked at them. */
export const SeenResult = z.strictObject({
  kind: z.string().refine((kind) => TOLD.some((one) => one.kind === kind), "No such kind has numbers to look at."),
  id: ObjectId,
  /** A fingerprint of everything the numbers depend on: while it is the same, so are they. */
  inputs: z.string().max(64),
  /** The few numbers that are told when they have changed. */
  numbers: z.array(z.strictObject({ name: z.string().max(300), value: z.number().nullable() })).max(60),
  revision: z.int().min(1),
  /** ISO time. */
  at: z.string().max(40),
});
export type SeenResult = z.infer<typeof SeenResult>;
