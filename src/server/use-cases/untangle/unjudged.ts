import { normalise } from '@/core';
import type { UnjudgedLine } from '@/contracts/knots';
import { derivedFrom } from '../../compute/derived';
import type { Snapshot } from '../../compute/snapshot';
import { statusOf } from '../../compute/serving';
import type { Keyword } from '../../repositories/structure/structure';

/** Why nothing can be said of a keyword; undefined where something can. */
export function whyUnjudged({ text, match }: Pick<Keyword, 'text' | 'match'>): string | undefined {
  if (match === 'unknown') return 'its match type is not known';
  return normalise(text) === '' ? 'it holds no word' : undefined;
}

/** Keywords and negatives of an account of which no conflict can be told. */
export const unjudgedIn = derivedFrom((snapshot: Snapshot): UnjudgedLine[] => {
  const { mirror, adGroup, campaign } = snapshot;
  const runs = (status: string) => status === 'live' || status === 'unknown';
  const keywords = mirror.keywords.flatMap((keyword): UnjudgedLine[] => {
    const why = keyword.match === 'automatic' ? undefined : whyUnjudged(keyword);
    const of = adGroup.get(keyword.adGroupId);
    if (why === undefined || !of || !runs(keyword.status)) return [];
    if (!runs(statusOf(snapshot, { kind: 'adGroup', id: of.id }))) return [];
    const where = `${campaign.get(of.campaignId)?.name ?? ''} · ${of.name}`;
    return [{ text: keyword.text, where, why }];
  });
  const negatives = mirror.negatives.flatMap(({ text }): UnjudgedLine[] =>
    normalise(text) === ''
      ? [{ text, where: 'the negatives', why: 'it holds no word, so it stops nothing' }]
      : [],
  );
  return [...keywords, ...negatives];
});
