"use client";

import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { z } from "zod";
import { refusalOf } from "@/features/study/refusal";
import css from "./studies.module.css";

const Opened = z.object({ id: z.string() });

/** For who is here for the first time: what to drop, what becomes of it, and a made-up study to try everything on. */
export function Greeting() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const open = async () => {
    setBusy(true);
    setFault(null);
    const response = fetch("/api/studies/demo", { method: "POST" });
    const refused = await refusalOf(response);
    if (refused === null) router.push(`/studies/${Opened.parse(await (await response).json()).id}/ladders`);
    else {
      setFault(refused);
      setBusy(false);
    }
  };
  return (
    <section className={css.greeting} aria-label="For the first time here">
      <ol>
        <li>
          <strong>Drop the export as it is.</strong> Several rows of names, answers in words, codes for missing answers: leave them. You see
          how each row and column is understood, and can correct it.
        </li>
        <li>
          <strong>Confirm what the answers mean.</strong> “Strongly agree” becomes 5 for all questions at once; the file itself is never
          changed, and every step can be taken back.
        </li>
        <li>
          <strong>Gather scales, climb a ladder.</strong> Items become scales with their reliability, predictors enter step by step, and
          each number says where it comes from.
        </li>
      </ol>
      <p>
        Nothing at hand?{" "}
        <Button size="small" loading={busy} onClick={() => void open()}>
          Open the made-up study
        </Button>{" "}
        <span className="quiet">440 learners of the Canal Street evening classes, with scales and ladders ready.</span>
      </p>
      {fault && <p role="alert">{fault}</p>}
    </section>
  );
}
