import fc from 'fast-check';
import { aText } from '../gate/testing';
import type { Tier } from './tiers';

/** Two to four tiers with entry terms of a small vocabulary, so that they meet often; each tier phrase or exact. */
export const aPlan = (): fc.Arbitrary<Tier[]> =>
  fc
    .array(
      fc.record({
        entryTerms: fc.array(fc.oneof({ weight: 12, arbitrary: aText(2) }, fc.constant('?!')), {
          maxLength: 3,
        }),
        entryMatch: fc.constantFrom('phrase' as const, 'exact' as const),
      }),
      { minLength: 2, maxLength: 4 },
    )
    .map((tiers) => tiers.map((tier, i) => ({ ...tier, id: `t${i}` })));
