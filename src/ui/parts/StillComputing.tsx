import page from "./page.module.css";

/** Shows itself when a computation takes longer than most of a second, with a way to stop it. Takes no room. */
export function StillComputing({ onStop }: { onStop: () => void }) {
  return (
    <div className={page.still} role="status">
      Computing …{" "}
      <button type="button" className="link" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
