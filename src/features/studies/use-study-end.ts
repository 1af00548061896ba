"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { refusalOf } from "@/features/study/refusal";

/** What is done to a study from the list. */
export type StudyEnd = "delete" | "take-back" | "copy" | { erase: string } | { name: string } | { putAway: boolean };

/** Renames, copies, puts away, deletes, takes back or erases a study, and shows the list as it then is; a sentence when it could not be done. */
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
  if (how === "copy") return fetch(`${address}/copy`, { method: "POST" });
  if ("name" in how || "putAway" in how) return fetch(address, { method: "PATCH", body: JSON.stringify(how) });
  return fetch(`${address}/erase`, { method: "POST", body: JSON.stringify({ name: how.erase }) });
}
