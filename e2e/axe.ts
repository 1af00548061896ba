import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

/** Rows of the answers and of the codebook from the eighth on are like those before, and a thousand cells take a minute to look through. */
const MORE_ROWS = ['[role="grid"] [role="row"]:nth-child(n + 9)', '[aria-label="Codebook"] tbody tr:nth-child(n + 13)'];

/**
 * The list of a combobox scrolls with its arrow keys and must not take the focus from it. The rule knows that only of lists whose scrolled element is the
 * listbox itself; that the keys reach the end of a long list has a test below.
 */
const SCROLLED_BY_KEYS = "scrollable-region-focusable: .ant-select-dropdown-list-holder";

// in the page itself (it has no frames), and without a selector for everything that is right: a third of the time
export async function faults(page: Page): Promise<string[]> {
  const look = MORE_ROWS.reduce(
    (axe, rows) => axe.exclude(rows),
    new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ["violations"] }),
  );
  const { violations } = await look.analyze();
  const all = violations.flatMap((v) => v.nodes.map((node) => `${v.id}: ${node.target.join(" ")}`));
  return all.filter((fault) => fault !== SCROLLED_BY_KEYS);
}
