"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { ArrivedFile } from "@/features/study/upload/ArrivedFile";
import { FileDrop } from "@/features/study/upload/FileDrop";
import type { Arrived } from "@/features/study/upload/upload-client";
import { formatCount } from "@/study/report/format-number";
import { Masthead } from "@/ui/parts/Masthead";
import { type DeletedStudy, DeletedStudies } from "./DeletedStudies";
import { LocalTime } from "@/ui/parts/LocalTime";
import css from "./studies.module.css";
import { useStudyEnd } from "./use-study-end";

/** The way in: drop a file, see how it is read, and begin a study; or go on with one. */
export function StudiesScreen(props: {
  studies: { id: string; name: string; rows: number; updatedAt: string }[];
  deleted: DeletedStudy[];
  /** So long a deleted study can be taken back. */
  days: number;
}) {
  const { studies } = props;
  const router = useRouter();
  const { end, fault } = useStudyEnd();
  const [file, setFile] = useState<Arrived | null>(null);
  return (
    <>
      <Masthead />
      <main className={css.home}>
        {file ? (
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
              hint="CSV or TSV, XLSX, ODS, JSON rows, or a data package (ZIP). One row a respondent. You see how it is read before anything is kept; the file stays on this machine."
              onArrived={setFile}
            />
          </>
        )}
        {studies.length > 0 && (
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
                  <span className="visually-hidden">End</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {studies.map((study) => (
                <tr key={study.id}>
                  <th scope="row">
                    <Link href={`/studies/${study.id}/ladders`}>{study.name}</Link>
                  </th>
                  <td className={css.number}>{formatCount(study.rows)}</td>
                  <td className="quiet">
                    <LocalTime at={study.updatedAt} />
                  </td>
                  <td className={css.number}>
                    <button type="button" className="link" aria-label={`Delete ${study.name}`} onClick={() => void end(study.id, "delete")}>
                      Delete
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
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
