import type { Scale } from "../model/scale";

/** Where an item stands among factors. */
export interface ItemPlace {
  item: string;
  /** The factor of its largest loading, from 0; null when no loading reaches the threshold. */
  factor: number | null;
  /** That largest loading, whether it reaches the threshold or not. */
  loading: number;
  /** Other factors on which it loads as well, from 0. */
  cross: number[];
}

/** @param loadings k × m, row-major; @param threshold size below which a loading ties an item to nothing */
export function itemPlaces(items: readonly string[], loadings: Float64Array, m: number, threshold: number): ItemPlace[] {
  return items.map((item, i) => {
    const own = Array.from(loadings.subarray(i * m, i * m + m));
    const main = own.reduce((best, x, f) => (Math.abs(x) > Math.abs(own[best]!) ? f : best), 0);
    const reaches = (x: number) => Math.abs(x) >= threshold;
    return {
      item,
      factor: reaches(own[main]!) ? main : null,
      loading: own[main]!,
      cross: own.map((_, f) => f).filter((f) => f !== main && reaches(own[f]!)),
    };
  });
}

/** Items in the order in which a table reads best: by factor, within it by the size of the loading; those of no factor last. */
export function sortedPlaces(places: readonly ItemPlace[]): ItemPlace[] {
  const rank = (place: ItemPlace) => place.factor ?? Infinity;
  return [...places].sort((a, b) => (rank(a) === rank(b) ? Math.abs(b.loading) - Math.abs(a.loading) : rank(a) - rank(b)));
}

/** How a scale's items stand among the factors. */
export interface ScaleAgreement {
  scale: string;
  /** Its items that are in the structure. */
  items: string[];
  /** The factor that most of them go with; null when there is none that at least two go with. */
  factor: number | null;
  /** Items that go with another factor, or with none. */
  elsewhere: string[];
  nowhere: string[];
  /** Items whose loading on the scale's factor has the other sign than most: their key may be wrong. */
  against: string[];
  /** Items outside the scale that go with its factor. */
  guests: string[];
}

/** Holds the loadings against the scales as they are keyed; scales with fewer than two items in the structure are left out. */
export function scaleAgreement(scales: readonly Scale[], places: readonly ItemPlace[]): ScaleAgreement[] {
  return scales.flatMap((scale): ScaleAgreement[] => {
    const own = places.filter((place) => scale.items.some((item) => item.variable === place.item));
    if (own.length < 2) return [];
    const counts = new Map<number, number>();
    for (const { factor } of own) if (factor !== null) counts.set(factor, (counts.get(factor) ?? 0) + 1);
    const [most] = [...counts].sort((a, b) => b[1] - a[1]);
    const factor = most && most[1] >= 2 ? most[0] : null;
    const there = own.filter((place) => factor !== null && place.factor === factor);
    const negative = there.filter((place) => place.loading < 0);
    const against = negative.length * 2 > there.length ? there.filter((place) => place.loading > 0) : negative;
    const names = (list: readonly ItemPlace[]) => list.map((place) => place.item);
    return [
      {
        scale: scale.id,
        items: names(own),
        factor,
        elsewhere: names(own.filter((place) => place.factor !== null && place.factor !== factor)),
        nowhere: names(own.filter((place) => place.factor === null)),
        against: negative.length * 2 === there.length ? [] : names(against),
        guests: factor === null ? [] : names(places.filter((place) => place.factor === factor && !own.includes(place))),
      },
    ];
  });
}
