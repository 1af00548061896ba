import css from "../ladders.module.css";

/** Says the coefficient that is pointed at, in words. Its place is always there, so that nothing moves. */
export function ReadingLine({ sentence }: { sentence: string | null }) {
  return (
    <p className={css.reading} role="status" data-testid="reading">
      {sentence ?? <span className="quiet">Point at a number, or go through them with the arrow keys, to read it as a sentence.</span>}
    </p>
  );
}
