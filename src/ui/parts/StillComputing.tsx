import page from "./page.module.css";

/** Shows itself when a computation takes longer than most of a second, with how far it is and a way to stop it. Takes no room. */
export function StillComputing({ progress = null, onStop }: { progress?: number | null; onStop: () => void }) {
  return (
    <div className={page.still} role="status">
      Computing …{" "}
      {progress !== null && (
        <>
          <progress className={page.progress} value={progress} max={1} aria-label="How far the computation is" />{" "}
          {Math.round(progress * 100)} %{" "}
        </>
      )}
      <button type="button" className="link" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
