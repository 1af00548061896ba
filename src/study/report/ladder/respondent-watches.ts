import { counted, formatNumber, formatShare, listed } from "../format-number";
import { columnTitle } from "./coefficient-words";
import type { LadderWatch } from "./ladder-fix";
import type { WatchInput } from "./watch-input";
import { fixesAt } from "./term-place";

/** Share of the respondents that a single variable must cost before it is asked whether it is worth them. */
const COSTLY = 0.05;

/** Respondents who move a coefficient, or lie far from what is predicted for them. */
export function notableWatches({ ladder, result: { fit }, depth, step, title }: WatchInput): LadderWatch[] {
  if (!depth) return [];
  const leave = ladder.respondents === null;
  return depth.notable.slice(0, 5).map(({ row, why, cooksD, residual, moves }) => ({
    id: `respondent ${row}`,
    words:
      why === "moves"
        ? `The respondent in row ${row} moves step ${step + 1} clearly (Cook’s D = ${formatNumber(cooksD)})${moves ? `, most of all ${columnTitle(moves.column, fit, title)}, by ${formatNumber(Math.abs(moves.errors), 1)} of its standard errors` : ""}. Look at the answers before anything else.`
        : `The respondent in row ${row} lies farther from the prediction of step ${step + 1} than chance among so many would have it (deleted residual ${formatNumber(residual)}).`,
    fixes: [{ do: "see-row", row }, ...(leave ? [{ do: "leave-out-rows" as const, rows: [row] }] : [])],
  }));
}

/** Who was lost for missing answers, and to what. */
export function lostWatches({ ladder, result: { sample }, title }: WatchInput): LadderWatch[] {
  const lost = sample.keptByFilter - sample.used;
  if (lost === 0) return [];
  const most = Object.entries(sample.missingByVariable)
    .filter(([, n]) => n > 0)
    .sort((a, b) => b[1] - a[1]);
  const [worst, cost] = most[0] ?? ["", 0];
  const blame = most.slice(0, 2).map(([name, n]) => `${title(name)} (${n})`);
  const share = formatShare((lost / sample.keptByFilter) * 100, 0);
  return [
    {
      id: "lost",
      words: `${counted(lost, "respondent is", "respondents are")} left out of every step for missing answers${lost / sample.keptByFilter > COSTLY ? `, ${share} % of all` : ""}, most often in ${listed(blame)}.`,
      fixes: [
        { do: "see-missing" },
        ...(cost > COSTLY * sample.keptByFilter && worst !== ladder.outcome ? fixesAt("remove-term", ladder, worst) : []),
      ],
    },
  ];
}
