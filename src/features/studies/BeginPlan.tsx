"use client";

import { Button, Input } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { z } from "zod";
import { CodebookPicker } from "@/features/study/CodebookPicker";
import { refusalOf } from "@/features/study/refusal";
import type { CodebookReading } from "@/files/codebook/codebook-table";
import { newCodebook } from "@/files/codebook/read-codebook";
import { counted, listed } from "@/study/report/format-number";
import css from "./studies.module.css";

const Opened = z.object({ id: z.string() });

const EXAMPLE =
  "SC1, I start talking even when I may make mistakes, item, 1, 7\nage, Age, number\nformat, Class format, category, , , in person; online";

/** A study that is planned before anybody has answered: its variables are typed, or come from a codebook. */
export function BeginPlan() {
  const router = useRouter();
  const newest = useRef("");
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [typed, setTyped] = useState("");
  const [reading, setReading] = useState<CodebookReading | null>(null);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const read = async (text: string) => {
    newest.current = text;
    setTyped(text);
    const found = text.trim() === "" ? null : await newCodebook(text);
    // what was typed since is read by itself
    if (newest.current === text) setReading(found);
  };
  const begin = async () => {
    setBusy(true);
    setFault(null);
    const body = JSON.stringify({ name, codebook: reading?.variables ?? [] });
    const response = fetch("/api/studies/plan", { method: "POST", headers: { "content-type": "application/json" }, body });
    const refused = await refusalOf(response);
    if (refused === null) router.push(`/studies/${Opened.parse(await (await response).json()).id}/scales`);
    else {
      setFault(refused);
      setBusy(false);
    }
  };
  if (!open)
    return (
      <p>
        No answers yet?{" "}
        <button type="button" className="link" onClick={() => setOpen(true)}>
          Write the plan first
        </button>{" "}
        <span className="quiet">Scales, ladders and hypotheses on a codebook; the answers come later.</span>
      </p>
    );
  const kinds = reading ? ["item", "number", "category"].flatMap((kind) => {
    const n = reading.variables.filter((v) => v.kind === kind).length;
    return n === 0 ? [] : [counted(n, kind, kind === "category" ? "categories" : `${kind}s`)];
  }) : []; // prettier-ignore
  return (
    <form
      className={css.plan}
      aria-label="A plan before the answers"
      onSubmit={(event) => {
        event.preventDefault();
        void begin();
      }}
    >
      <h2>A plan before the answers</h2>
      <label>
        Name of the study
        <Input value={name} maxLength={200} autoFocus onChange={(event) => setName(event.target.value)} />
      </label>
      <label>
        Variables, one a line: name, wording, kind, lowest, highest answer, levels
        <Input.TextArea rows={7} value={typed} placeholder={EXAMPLE} onChange={(event) => void read(event.target.value)} />
      </label>
      <CodebookPicker words="Take them from a codebook" hint="" label="Codebook of the plan" onText={(text) => void read(text)} />
      {reading && (
        <p role="status">
          {reading.variables.length === 0
            ? "No variable could be read."
            : `${counted(reading.variables.length, "variable")}: ${listed(kinds)}.`}
          {reading.ignored.length > 0 && ` Columns that mean nothing here: ${listed(reading.ignored)}.`}
        </p>
      )}
      {reading && reading.faults.length > 0 && (
        <div role="alert">
          <ul>
            {reading.faults.slice(0, 8).map((one) => (
              <li key={one}>{one}</li>
            ))}
            {reading.faults.length > 8 && <li>and {reading.faults.length - 8} more</li>}
          </ul>
        </div>
      )}
      {fault && <p role="alert">{fault}</p>}
      <p>
        <Button htmlType="submit" type="primary" loading={busy} disabled={name.trim() === "" || !reading || reading.variables.length === 0}>
          Begin the plan
        </Button>{" "}
        <Button onClick={() => setOpen(false)}>Cancel</Button>
      </p>
    </form>
  );
}
