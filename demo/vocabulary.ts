import type { Vocabulary } from '@/contracts/ideas';
import { makeLarkfell } from './larkfell';

/** Where Larkfell sells, and where others ask for the same. */
const LOCATIONS = ['United Kingdom', 'Ireland', 'Netherlands', 'Canada', 'New Zealand'];
/** A share of what can be asked about bees is enough for an idea source. */
const SCALE = 0.5;
/** Searches a month for one impression a day: others show their ads, too. */
const SEARCHES = 240;
/** What first places cost over what clicks cost. */
const OPENING = 1.15;

/** What people search for around Larkfell, as the stand-in idea source is given it. Always the same. */
export function makeVocabulary(): Vocabulary {
  const phrases = new Map<string, Vocabulary['phrases'][number]>();
  for (const { queries } of makeLarkfell(SCALE))
    for (const { text, daily, cpcMicros, cvr, means } of queries)
      phrases.set(text, {
        text,
        volume: Math.round((SEARCHES * daily) / 10) * 10,
        // Nobody bids where nobody buys.
        openingBidMicros: cvr > 0 ? Math.round((OPENING * cpcMicros) / 10_000) * 10_000 : null,
        means,
      });
  return { phrases: [...phrases.values()], locations: LOCATIONS };
}
