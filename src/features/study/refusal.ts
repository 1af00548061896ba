import { z } from "zod";

const Fault = z.object({ message: z.string() });
const SILENT = "The server does not answer. Nothing was changed; please try again.";

/** Why the house did not do what it was asked for, in its own sentence. @returns null when it is done */
export async function refusalOf(asked: Promise<Response>): Promise<string | null> {
  const response = await asked.catch(() => null);
  if (response?.ok) return null;
  const said = Fault.safeParse(await response?.json().catch(() => null));
  return said.success ? said.data.message : SILENT;
}
