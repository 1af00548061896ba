import page from "@/ui/parts/page.module.css";

/** A place that is not built yet: says so, and what will be there. */
export function ComingPlace({ sentence, will, until }: { sentence: string; will: string[]; until: string }) {
  return (
    <div className={page.page}>
      <main className={page.sheet}>
        <h1 className={page.sentence}>{sentence}</h1>
        <div className={page.coming}>
          <p>This place is not built yet. It will hold</p>
          <ul>
            {will.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <p className="quiet">{until}</p>
        </div>
      </main>
    </div>
  );
}
