import type { Mediation } from "../../analyse/mediation";
import { formatNumber, formatShare, pStatement } from "../format-number";
import type { Titles } from "../level-title";
import { SYMBOL, type Words, words } from "../words";

/** The caution about a moderator that looks like a mediator, with the numbers that make it look so. */
export function mediationSays({ x, m, r, before, after, p }: Mediation, title: Titles): Words {
  const share = formatShare((1 - Math.abs(after / before)) * 100, 0);
  return words`${title(m)} goes with ${title(x)} (${SYMBOL.r} = ${formatShare(r)}) and takes over ${share} % of its coefficient (${SYMBOL.b} ${formatNumber(before)} before it enters, ${formatNumber(after)} after), while their product adds nothing sure (${pStatement(p)}). If your theory says that ${title(x)} works through ${title(m)}, it is a mediator, and the product does not test that.`;
}
