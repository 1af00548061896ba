import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";

/** Rows of the answers and of the codebook from the eighth on are like those before, and a thousand cells take a minute to look through. */
const MORE_ROWS = ['[role="grid"] [role="row"]:nth-child(n + 9)', '[aria-label="Codebook"] tbody tr:nth-child(n + 13)'];

/**
 * The list of a combobox scrolls with its arrow keys and must not take the focus from it. The rule knows that only of lists whose scrolled element is the
 * listbox itself; that the keys reach the end of a long list has a test below.
 */
const SCROLLED_BY_KEYS = "scrollable-region-focusable: .ant-select-dropdown-list-holder";

/** Marks what the contrast is looked at of. */
const LOOKED_AT = "data-contrast";

/** What the rules are called by: the version that it was made for. */
const OWN = createRequire(createRequire(import.meta.url).resolve("@axe-core/playwright"));
/** The rules, with contrast looked at where it is marked: it took three quarters of the time of all of them. */
const RULES = `${readFileSync(OWN.resolve("axe-core/axe.min.js"), "utf8")}
;axe.configure({ rules: [{ id: "color-contrast", selector: "[${LOOKED_AT}]" }] });`;

// in the page itself (it has no frames), and without a selector for everything that is right: a third of the time
export async function faults(page: Page): Promise<string[]> {
  await markContrasts(page);
  const look = MORE_ROWS.reduce(
    (axe, rows) => axe.exclude(rows),
    new AxeBuilder({ page, axeSource: RULES }).setLegacyMode().options({ resultTypes: ["violations"] }),
  );
  const { violations } = await look.analyze();
  const all = violations.flatMap((v) => v.nodes.map((node) => `${v.id}: ${node.target.join(" ")}`));
  return all.filter((fault) => fault !== SCROLLED_BY_KEYS);
}

/**
 * Of all texts that are alike (of one element and class in one of another, of one colour, size and weight, on the same grounds) the first, the last, and the
 * first that nothing covers: of one that is covered or cut off the rules are not sure.
 */
const markContrasts = (page: Page) =>
  page.evaluate((mark) => {
    const grounds = new Map<Element, string>();
    const groundOf = (element: Element): string => {
      const known = grounds.get(element);
      if (known !== undefined) return known;
      const { backgroundColor, backgroundImage, opacity } = getComputedStyle(element);
      const own = [backgroundColor, backgroundImage, opacity, element.matches(":disabled, [aria-disabled=true]")].join(" ");
      const under = element.parentElement ? groundOf(element.parentElement) : "";
      const all = under.endsWith(`|${own}`) ? under : `${under}|${own}`;
      grounds.set(element, all);
      return all;
    };
    const inSight = (element: Element) => {
      const { left, top, width, height } = element.getBoundingClientRect();
      return document.elementFromPoint(left + width / 2, top + height / 2) === element;
    };
    const alike = new Map<string, { first: Element; last: Element; inSight: Element | null }>();
    for (const element of document.body.querySelectorAll("*")) {
      element.removeAttribute(mark);
      const says = element.matches("input, textarea, select") || [...element.childNodes].some((n) => n.nodeType === 3 && n.nodeValue!.trim() !== ""); // prettier-ignore
      if (!says || element.getClientRects().length === 0) continue;
      const { color, fill, fontSize, fontWeight } = getComputedStyle(element);
      const kind = (one: Element | null) => `${one?.tagName}.${one?.getAttribute("class")}`;
      const sign = [kind(element), kind(element.parentElement), color, fill, fontSize, fontWeight, groundOf(element)].join("\n");
      const known = alike.get(sign) ?? { first: element, last: element, inSight: null };
      alike.set(sign, { ...known, last: element, inSight: known.inSight ?? (inSight(element) ? element : null) });
    }
    for (const group of alike.values()) for (const element of Object.values(group)) element?.setAttribute(mark, "");
  }, LOOKED_AT);
