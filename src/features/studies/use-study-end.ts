"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { refusalOf } from "@/features/study/refusal";

/** How a study ends, or does not. */
export type StudyEnd = "delete" | "take-back" | { erase: string };

/** Deletes a study, takes it back or erases it, and shows the list as it then is; a sentence when it could not be done. */
export function useStudyEnd() {
  const router = useRouter();
  const [fault, setFault] = useState<string | null>(null);
  const end = async (id: string, how: StudyEnd): Promise<void> => {
    setFault(null);
    const refused = await refusalOf(ask(`/api/studies/${id}`, how));
    setFault(refused);
    if (refused === null) router.refresh();
  };
  return { end, fault };
}

function ask(address: string, how: StudyEnd): Promise<Response> {
  if (how === "delete") return fetch(address, { method: "DELETE" });
  if (how === "take-back") return fetch(`${address}/take-back`, { method: "POST" });
  return fetch(`${address}/erase`, { method: "POST", body: JSON.stringify({ name: how.erase }) });
}
