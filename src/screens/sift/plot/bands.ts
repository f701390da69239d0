import type { PlotAnswer } from '@/contracts/sift';

/** Terms whose clicks lie between two bounds, both included. */
export type Band = {
  clicks: [number, number];
  terms: number;
  /** without a conversion */
  without: number;
  /** that miss the target for certain, by the account's mean cost a click */
  settled: number;
  costMicros: number;
  conversions: number;
  mostConversions: number;
};

/** Bands of clicks that double: 1, 2–3, 4–7 … */
export function bandsOf({ dots, settled }: PlotAnswer): Band[] {
  const bands = new Map<number, Band>();
  for (const { clicks, conversions, terms, costMicros } of dots) {
    const power = Math.floor(Math.log2(clicks));
    let band = bands.get(power);
    if (!band) {
      band = {
        ...{ clicks: [2 ** power, 2 ** (power + 1) - 1], terms: 0, without: 0, settled: 0 },
        ...{ costMicros: 0, conversions: 0, mostConversions: 0 },
      };
      bands.set(power, band);
    }
    band.terms += terms;
    if (conversions === 0) band.without += terms;
    if (conversions <= mostSettled(settled, clicks)) band.settled += terms;
    band.costMicros += costMicros;
    band.conversions += terms * conversions;
    band.mostConversions = Math.max(band.mostConversions, conversions);
  }
  return [...bands.values()].sort((a, b) => a.clicks[0] - b.clicks[0]);
}

/** The most conversions with which so many clicks surely miss; −1 where none do. */
function mostSettled(settled: PlotAnswer['settled'], clicks: number): number {
  let most = -1;
  for (const point of settled) if (point.clicks <= clicks) most = point.conversions;
  return most;
}
