/** The name with its four steps between the words. */
export function Wordmark() {
  return (
    <svg width="136" height="26" viewBox="0 0 136 26" role="img" aria-label="Beta Step">
      <text x="0" y="18" fontFamily="var(--serif)" fontSize="20" fontWeight="600" fill="var(--ink)">
        Beta
      </text>
      <path d="M43 18h13v4H43zM55 14h13v8H55zM67 10h12v12H67zM78 5h13v17H78z" fill="var(--plum)" />
      <text x="93" y="18" fontFamily="var(--serif)" fontSize="20" fontWeight="600" fill="var(--ink)">
        Step
      </text>
    </svg>
  );
}
