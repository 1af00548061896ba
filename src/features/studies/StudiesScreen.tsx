"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { ArrivedFile } from "@/features/study/upload/ArrivedFile";
import { FileDrop } from "@/features/study/upload/FileDrop";
import { ArrivedStudy } from "@/features/study/upload/ArrivedStudy";
import type { Arrived, ArrivedStudyFile } from "@/features/study/upload/upload-client";
import { counted } from "@/study/report/format-number";
import { Masthead } from "@/ui/parts/Masthead";
import { BeginPlan } from "./BeginPlan";
import { type DeletedStudy, DeletedStudies } from "./DeletedStudies";
import { Greeting } from "./Greeting";
import { StudyRow } from "./StudyRow";
import css from "./studies.module.css";
import { useStudyEnd } from "./use-study-end";

/** The way in: drop a file, see how it is read, and begin a study; or go on with one. */
export function StudiesScreen(props: {
  studies: { id: string; name: string; rows: number; updatedAt: string; putAway: boolean }[];
  deleted: DeletedStudy[];
  /** So long a deleted study can be taken back. */
  days: number;
}) {
  const { studies } = props;
  const router = useRouter();
  const { end, fault } = useStudyEnd();
  const [whole, setWhole] = useState<ArrivedStudyFile | null>(null);
  const [file, setFile] = useState<Arrived | null>(null);
  const [shown, away] = [studies.filter((s) => !s.putAway), studies.filter((s) => s.putAway)];
  return (
    <>
      <Masthead />
      <main className={css.home}>
        {whole ? (
          <ArrivedStudy file={whole} onOpened={(id) => router.push(`/studies/${id}/write-up`)} onClose={() => setWhole(null)} />
        ) : file ? (
          <ArrivedFile
            file={file}
            purpose={{ kind: "study" }}
            action="Begin the study"
            heading="h1"
            onTaken={(taken) => taken.status === "study" && router.push(`/studies/${taken.id}/responses`)}
            onClose={() => setFile(null)}
          />
        ) : (
          <>
            <h1>From questionnaire answers to tested theory, one step at a time.</h1>
            <FileDrop
              words="Drop your answers here to begin a study, or"
              hint="CSV or TSV, XLSX, ODS, JSON rows, a data package (ZIP), or a study file (ZIP). One row a respondent. You see how it is read before anything is kept; the file stays on this machine."
              onArrived={setFile}
              onStudyFile={setWhole}
            />
            <BeginPlan />
          </>
        )}
        {!file && !whole && studies.length === 0 && <Greeting />}
        {shown.length > 0 && (
          <table className={css.table}>
            <caption className="visually-hidden">Studies on this machine</caption>
            <thead>
              <tr>
                <th scope="col">Study</th>
                <th scope="col" className={css.number}>
                  Respondents
                </th>
                <th scope="col">Last change</th>
                <th scope="col">
                  <span className="visually-hidden">Ways</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.map((study) => (
                <StudyRow key={study.id} study={study} end={end} />
              ))}
            </tbody>
          </table>
        )}
        {away.length > 0 && (
          <details className={css.away}>
            <summary>Put away · {away.length}</summary>
            <ul>
              {away.map((study) => (
                <li key={study.id}>
                  <Link href={`/studies/${study.id}/ladders`}>{study.name}</Link>{" "}
                  <span className="quiet">{counted(study.rows, "respondent")}</span>{" "}
                  <button
                    type="button"
                    className="link"
                    aria-label={`Bring ${study.name} back`}
                    onClick={() => void end(study.id, { putAway: false })}
                  >
                    Bring back
                  </button>
                </li>
              ))}
            </ul>
          </details>
        )}
        {fault && (
          <p className={css.fault} role="alert">
            {fault}
          </p>
        )}
        <DeletedStudies studies={props.deleted} days={props.days} end={end} />
      </main>
    </>
  );
}
