/** Levels or answers with their counts, a bar each. */
export function LevelBars({ levels, width, title }: { levels: readonly { name: string; count: number }[]; width: number; title: string }) {
  const most = Math.max(1, ...levels.map((l) => l.count));
  const [name, row] = [Math.round(width * 0.46), 19];
  if (levels.length === 0) return null;
  return (
    <svg
      role="img"
      aria-label={`${title}: ${levels.map((l) => `${l.name} ${l.count}`).join(", ")}`}
      viewBox={`0 0 ${width} ${levels.length * row}`}
      width="100%"
      style={{ display: "block", maxWidth: width }}
    >
      {levels.map((level, i) => (
        <g key={level.name} transform={`translate(0 ${i * row})`} fontSize={12}>
          <title>{`${level.name}: ${level.count}`}</title>
          <text x={0} y={14} fill="var(--ink)">
            {level.name.length > 17 ? `${level.name.slice(0, 16)}…` : level.name}
          </text>
          <rect
            x={name}
            y={4}
            width={Math.max(level.count > 0 ? 1 : 0, ((width - name - 34) * level.count) / most)}
            height={11}
            fill="var(--plum)"
          />
          <text x={width} y={14} textAnchor="end" fill="var(--quiet)">
            {level.count}
          </text>
        </g>
      ))}
    </svg>
  );
}
