import { activeTerms, type Ladder } from "@/study/model/ladder";
import type { Probe } from "@/study/model/probe";

/** What a step can be asked: a predictor, and what its relation may change with. */
export type Offer = Pick<Probe, "focal" | "moderators">;

/**
 * The questions that the products up to a step raise: each product once, its first number as the predictor (either can be asked about); a predictor with several
 * products also with all of its partners at once.
 * @param step from 0
 */
export function probeOffers(ladder: Ladder, step: number, isCategory: (name: string) => boolean): Offer[] {
  const products = ladder.steps.slice(0, step + 1).flatMap(activeTerms).map((term) => term.components).filter((c) => c.length > 1); // prettier-ignore
  const offers: Offer[] = [];
  const offer = (focal: string, others: readonly string[]) => {
    const moderators = [...new Set(others)].slice(0, 3).map((variable) => ({ variable, values: { by: "sd" as const } }));
    const known = offers.some((o) => asked(o) === asked({ focal, moderators }));
    if (!known && moderators.length > 0) offers.push({ focal, moderators });
  };
  for (const components of products) {
    const focal = components.find((name) => !isCategory(name)) ?? components[0]!;
    const others = components.filter((name) => name !== focal);
    offer(focal, others.length > 0 ? others : [focal]);
  }
  for (const { focal } of [...offers]) {
    const partners = [
      ...new Set(products.filter((c) => c.length === 2 && c.includes(focal)).flatMap((c) => c.filter((name) => name !== focal))),
    ];
    if (partners.length > 1) offer(focal, partners);
  }
  return offers;
}

/** One text for what is asked: the same whatever the values and whichever of two is the moderator. */
export function asked({ focal, moderators }: Offer): string {
  return JSON.stringify([focal, ...moderators.map((m) => m.variable)].sort());
}
