import type { PlatformQuery, Structure } from '@/contracts/platform';
import { stops } from '@/core';
import { INTENTS, TAILS, type Intent } from './intents';
import type { DemoAdGroup } from './structure';
import type { Draw } from './random';

/** Rare queries of which a share is never shown by name. */
const RARE_BELOW = 0.25;
const SHARE_UNREPORTED = 0.3;

/** Share of all that could be asked which is asked at all. */
const ASKED = 0.67;
const VOLUME = 0.043;
/** Mean impressions a day of the most popular query. */
const MOST_DAILY = 70;

export type QueryPlan = {
  adGroups: readonly DemoAdGroup[];
  keywords: Structure['keywords'];
  /** 1 gives about 20,000 queries; less gives that share of them, more adds as many with further words */
  scale: number;
  /** whether conversions carry a value */
  withValue: boolean;
};

/** All queries of an account, from the products, why people ask, and (for larger demos) further words. */
export function makeQueries(plan: QueryPlan, draw: Draw): PlatformQuery[] {
  const served = indexKeywords(plan);
  const products = new Map(plan.adGroups.map((g) => [g.product, g]));
  const queries = new Map<string, PlatformQuery>();
  const tails = ['', ...TAILS.slice(0, Math.ceil(plan.scale) - 1)];
  for (const [product, { line }] of products) {
    const groups = plan.adGroups.filter((g) => g.product === product);
    const siblings = plan.adGroups.filter((g) => g.line === line && g.product !== product);
    for (const [rank, words] of product.words.entries()) {
      const popularity = draw.spread(0.7) / (1 + rank);
      for (const intent of INTENTS) {
        if (intent.only && !intent.only.test(line.campaign)) continue;
        for (const template of intent.templates) {
          for (const [t, tail] of tails.entries()) {
            const text = `${template.replace('{p}', words)} ${tail}`.trim();
            if (
              queries.has(text) ||
              !draw.chance((intent.name === 'buying' ? 0.8 : ASKED) * Math.min(1, plan.scale))
            )
              continue;
            const daily = Math.min(
              MOST_DAILY,
              VOLUME * intent.volume * popularity * draw.spread(2) * (t === 0 ? 1 : 0.25),
            );
            const candidates = candidatesFor(text, groups, siblings, served, draw);
            queries.set(text, {
              text,
              daily,
              ctr: Math.min(0.5, intent.ctr * draw.spread(0.25)),
              cvr: Math.min(0.6, product.cvr * conversionOf(intent, line.campaign) * draw.spread(0.2)),
              valueMicros: plan.withValue
                ? Math.round(product.value * 100) * 10_000
                : Math.round(product.value) * 1_000_000,
              unreported: daily < RARE_BELOW && draw.chance(SHARE_UNREPORTED),
              candidates,
            });
          }
        }
      }
    }
  }
  return [...queries.values()].filter((query) => query.candidates.length > 0);
}

function conversionOf(intent: Intent, campaign: string): number {
  return intent.goodIn?.campaigns.includes(campaign) ? intent.goodIn.conversion : intent.conversion;
}

function indexKeywords({ keywords }: QueryPlan) {
  const byGroup = new Map<string, Structure['keywords']>();
  for (const keyword of keywords) {
    if (keyword.status !== 'live') continue;
    const group = byGroup.get(keyword.adGroupId);
    if (group) group.push(keyword);
    else byGroup.set(keyword.adGroupId, [keyword]);
  }
  return byGroup;
}

/**
 * Where a query can be served: in its own ad groups by the keyword that is nearest (exact, then phrase, then broad),
 * then in one or two ad groups beside it.
 */
function candidatesFor(
  text: string,
  own: readonly DemoAdGroup[],
  siblings: readonly DemoAdGroup[],
  served: Map<string, Structure['keywords']>,
  draw: Draw,
): PlatformQuery['candidates'] {
  const beside = siblings.length > 0 && draw.chance(0.35) ? [draw.pick(siblings)] : [];
  const order = own.length > 1 && draw.chance(0.5) ? [...own].reverse() : own;
  return [...order, ...beside].flatMap(({ id, automatic, product }): PlatformQuery['candidates'] => {
    const keywords = served.get(id) ?? [];
    const cpcMicros = Math.round(product.cpc * draw.spread(0.15) * 100) * 10_000;
    if (automatic) return [{ adGroupId: id, keywordId: null, cpcMicros }];
    const fits = (match: 'exact' | 'phrase') =>
      keywords.find((k) => k.match === match && stops({ text: k.text, match }, text));
    const broad = keywords.filter((k) => k.match === 'broad');
    const keyword = fits('exact') ?? fits('phrase') ?? (broad.length > 0 ? draw.pick(broad) : undefined);
    return keyword ? [{ adGroupId: id, keywordId: keyword.id, cpcMicros }] : [];
  });
}
