import { rollup, sum } from 'd3';
import { compileVocabulary, normalise, variants, type LaneFault, type Lanes, type ServedQuery } from '@/core';
import type { EntryTermLine } from '@/contracts/lanes';
import type { LanesInUse } from '../../compute/lanes/lanes-in-use';

/** Of entry terms beyond these no other ways to write them are looked for. */
const MOST_VARIED = 400;

/** What each entry term lets in, as it was served, whoever served it; where it is missing, and what is wrong with it. */
export function entryTermLines(
  { tiers, by }: LanesInUse,
  lanes: Lanes,
  queries: readonly ServedQuery[],
  {
    faults,
    takes,
    isMissing,
  }: {
    faults: readonly LaneFault[];
    takes: (tier: number, text: string) => boolean;
    isMissing: (tier: number, text: string) => boolean;
  },
): EntryTermLine[] {
  const nameOf = ({ tier, text }: { tier: number; text: string }) => `${tier} ${text}`;
  const letIn = queries.flatMap((served) => {
    const entryTerm = lanes.entryTermOf(served.query);
    return entryTerm ? [{ name: nameOf(entryTerm), served }] : [];
  });
  const brought = rollup(
    letIn,
    (of) => ({
      clicks: sum(of, ({ served }) => served.clicks),
      costMicros: sum(of, ({ served }) => served.costMicros),
      conversions: of.every(({ served }) => served.conversions === null)
        ? null
        : sum(of, ({ served }) => served.conversions ?? 0),
    }),
    ({ name }) => name,
  );
  const vocabulary = by === 'entry terms' ? compileVocabulary(queries.map(({ query }) => query)) : null;
  return lanes.entryTerms.map((entryTerm, i): EntryTermLine => {
    const { text, tier } = entryTerm;
    return {
      ...{ text, tier },
      ...(brought.get(nameOf(entryTerm)) ?? { clicks: 0, costMicros: 0, conversions: null }),
      missingIn: tiers.flatMap(({ name }, number) =>
        number < tier && isMissing(number, text) ? [name] : [],
      ),
      fault:
        sayFault(tiers, faults, entryTerm) ??
        (takes(tier, text) ? null : `${tiers[tier]!.name} stops it, or does not run: nothing is left to it.`),
      variants:
        vocabulary && i < MOST_VARIED
          ? variants(text, vocabulary).flatMap((one) => (lanes.route(one.text) < tier ? [one.text] : []))
          : [],
    };
  });
}

function sayFault(
  tiers: LanesInUse['tiers'],
  faults: readonly LaneFault[],
  { tier, text }: { tier: number; text: string },
): string | null {
  for (const one of faults) {
    if (one.tier !== tier || one.fault === 'unreachable' || normalise(one.entryTerm) !== text) continue;
    switch (one.fault) {
      case 'no word':
        return 'It holds no word, so that it lets nothing in.';
      case 'product code':
        return 'It is a product code, which no negative stops.';
      case 'taken later': {
        const { tier: later, entryTerm } = one.by;
        return entryTerm === text
          ? `It stands in ${tiers[later]!.name}, too, which gets its queries.`
          : `“${entryTerm}” of ${tiers[later]!.name} lies inside it and gets its queries.`;
      }
    }
  }
  return null;
}
