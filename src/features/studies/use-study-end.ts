"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { z } from "zod";

/** How a study ends, or does not. */
export type StudyEnd = "delete" | "take-back" | { erase: string };

const Fault = z.object({ message: z.string() });

/** Deletes a study, takes it back or erases it, and shows the list as it then is; a sentence when it could not be done. */
export function useStudyEnd() {
  const router = useRouter();
  const [fault, setFault] = useState<string | null>(null);
  const end = async (id: string, how: StudyEnd): Promise<boolean> => {
    setFault(null);
    const address = `/api/studies/${id}`;
    const asked =
      how === "delete"
        ? fetch(address, { method: "DELETE" })
        : how === "take-back"
          ? fetch(`${address}/take-back`, { method: "POST" })
          : fetch(`${address}/erase`, { method: "POST", body: JSON.stringify({ name: how.erase }) });
    const response = await asked.catch(() => null);
    if (response?.ok) {
      router.refresh();
      return true;
    }
    const said = Fault.safeParse(await response?.json().catch(() => null));
    setFault(said.success ? said.data.message : "The server does not answer. Nothing was changed; please try again.");
    return false;
  };
  return { end, fault };
}
