/** The end of a sentence that offers a table as a file. */
export function SaveAs({ onSave }: { onSave: (kind: "csv" | "html") => void }) {
  return (
    <>
      Save as{" "}
      <button type="button" className="link" onClick={() => onSave("csv")}>
        CSV
      </button>{" "}
      or{" "}
      <button type="button" className="link" onClick={() => onSave("html")}>
        HTML
      </button>
      .
    </>
  );
}
