import type { PlatformQuery } from '@/contracts/platform';
import { wordsMeantBy } from './families';
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
  /** 1 gives about 20,000 queries; less gives that share of them, more adds as many with further words */
  scale: number;
  /** whether conversions carry a value */
  withValue: boolean;
};

/** All queries of an account, from the products, why people ask, and (for larger demos) further words. */
export function makeQueries(plan: QueryPlan, draw: Draw): PlatformQuery[] {
  const products = new Map(plan.adGroups.map((g) => [g.product, g]));
  const queries = new Map<string, PlatformQuery>();
  const tails = ['', ...TAILS.slice(0, Math.ceil(plan.scale) - 1)];
  for (const [product, { line }] of products) {
    const automaticIn = plan.adGroups.filter((g) => g.product === product && g.automatic).map((g) => g.id);
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
            queries.set(text, {
              text,
              daily,
              ctr: Math.min(0.5, intent.ctr * draw.spread(0.25)),
              cvr: Math.min(0.6, product.cvr * conversionOf(intent, line.campaign) * draw.spread(0.2)),
              valueMicros: plan.withValue
                ? Math.round(product.value * 100) * 10_000
                : Math.round(product.value) * 1_000_000,
              unreported: daily < RARE_BELOW && draw.chance(SHARE_UNREPORTED),
              cpcMicros: Math.round(product.cpc * draw.spread(0.15) * 100) * 10_000,
              means: wordsMeantBy(text),
              automaticIn,
            });
          }
        }
      }
    }
  }
  return [...queries.values()];
}

function conversionOf(intent: Intent, campaign: string): number {
  return intent.goodIn?.campaigns.includes(campaign) ? intent.goodIn.conversion : intent.conversion;
}
