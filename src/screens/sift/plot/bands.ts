import type { PlotAnswer } from '@/contracts/sift';

/** Terms whose clicks lie between two bounds, both included. */
export type Band = {
  clicks: [number, number];
  terms: number;
  /** without a conversion */
  without: number;
  /** that miss the target for certain */
  sure: number;
  costMicros: number;
  conversions: number;
  mostConversions: number;
};

/** Bands of clicks that double: 1, 2–3, 4–7 … */
export function bandsOf({ dots }: Pick<PlotAnswer, 'dots'>): Band[] {
  const bands = new Map<number, Band>();
  for (const { clicks, conversions, terms, sure, costMicros } of dots) {
    const power = Math.floor(Math.log2(clicks));
    let band = bands.get(power);
    if (!band) {
      band = {
        ...{ clicks: [2 ** power, 2 ** (power + 1) - 1], terms: 0, without: 0, sure: 0 },
        ...{ costMicros: 0, conversions: 0, mostConversions: 0 },
      };
      bands.set(power, band);
    }
    band.terms += terms;
    if (conversions === 0) band.without += terms;
    band.sure += sure;
    band.costMicros += costMicros;
    band.conversions += terms * conversions;
    band.mostConversions = Math.max(band.mostConversions, conversions);
  }
  return [...bands.values()].sort((a, b) => a.clicks[0] - b.clicks[0]);
}
