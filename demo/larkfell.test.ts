import { describe, expect, test } from 'vitest';
import {
  cleanPlacement,
  compileAccountGate,
  compileDuplicates,
  covers,
  findCommonSets,
  productCodeTest,
  textSeverity,
  type AccountShape,
} from '@/core';
import type { Structure } from '@/contracts/platform';
import { matcherOf } from '@/standins/ad-platform/keyword-matching';
import { wordsMeantBy } from './families';
import { INTENTS } from './intents';
import { ACCOUNT_SETTINGS, makeLarkfell } from './larkfell';
import { SHOPPING_PLAN } from './shopping';

const [web, market] = makeLarkfell(0.3);

describe('the demo', () => {
  test('is the same for the same scale, and grows with it', () => {
    expect(makeLarkfell(0.3)).toEqual([web, market]);
    const sizes = [0.1, 0.3, 1, 2].map((scale) => makeLarkfell(scale)[0]!.queries.length);
    expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
    expect(sizes[3]! / sizes[2]!).toBeGreaterThan(1.7);
  });

  test('the web search account has the size of a small real one', () => {
    const { campaigns, adGroups, keywords } = web!.structure;
    expect(campaigns.length).toBeGreaterThanOrEqual(12);
    expect(adGroups.length).toBeGreaterThan(70);
    expect(keywords.length).toBeGreaterThan(800);
    const search = campaigns.filter((c) => c.channel === 'search');
    expect(search.every((c) => adGroups.some((g) => g.campaignId === c.id))).toBe(true);
  });

  test.each([web!, market!])(
    '$account.name: every query can be served, and many in several places',
    ({ structure, queries }) => {
      const matchesOf = matcherOf(structure);
      const places = queries.map((query) => new Set(matchesOf(query).map((m) => m.adGroupId)).size);
      expect(Math.min(...places)).toBeGreaterThan(0);
      expect(places.filter((n) => n > 1).length / places.length).toBeGreaterThan(0.4);
    },
  );

  test('what is asked for shopping is served by its tiers alone, and asked for each of their entry terms', () => {
    const matchesOf = matcherOf(web!.structure);
    const shopping = web!.queries.filter(({ automaticIn }) => automaticIn.length > 0);
    const tiers = web!.structure.campaigns.filter(({ channel }) => channel === 'shopping');
    expect(tiers.map(({ priority }) => priority)).toEqual(['high', 'medium', 'low']);
    for (const query of shopping) expect(matchesOf(query)).toHaveLength(tiers.length);
    for (const entryTerm of SHOPPING_PLAN.tiers.flatMap(({ entryTerms }) => entryTerms))
      expect(shopping.some(({ text }) => text.includes(entryTerm))).toBe(true);
  });

  test('other seeds give other traffic of the same advertiser', () => {
    const [other] = makeLarkfell(0.3, 1);
    expect(other!.structure).toEqual(web!.structure);
    expect(other!.queries).not.toEqual(web!.queries);
    expect(other!.queries.length / web!.queries.length).toBeCloseTo(1, 1);
  });

  test('keywords stand twice where that was planted and nowhere else; the doubles of the north are deliberate', () => {
    const { campaigns, adGroups, keywords } = web!.structure;
    const { groups, splits } = compileDuplicates({
      today: '2026-11-22',
      campaigns: campaigns.map((campaign) => ({
        ...campaign,
        adGroups: adGroups
          .filter(({ campaignId }) => campaignId === campaign.id)
          .map(({ id, status }) => ({
            ...{ id, status },
            keywords: keywords.flatMap(({ match, ...one }) =>
              one.adGroupId === id && match !== 'automatic' ? { ...one, match } : [],
            ),
          })),
      })),
    }).find({ wordOrder: 'same', matchType: 'same', reach: 'all' });
    const keyword = new Map(keywords.map((one) => [one.id, one]));
    const said = groups.map(([id]) => `${keyword.get(id!)!.text} ${keyword.get(id!)!.match}`);
    expect(said.sort()).toEqual([
      'bee hive broad',
      'brood box phrase',
      'hive bars phrase',
      'kids bee suit phrase',
    ]);
    expect(splits.length).toBeGreaterThan(10);
    for (const { by } of splits) expect(by).toEqual(['location']);
  });

  test('a text means what is near it, and nothing twice', () => {
    expect(wordsMeantBy('bee suit price')).toEqual(
      expect.arrayContaining(['beekeeper', 'jacket', 'overalls', 'trousers']),
    );
    expect(wordsMeantBy('beehive')).toEqual(['bee', 'hive', 'hives']);
    expect(wordsMeantBy('tattoo')).toEqual([]);
  });

  test('names no text twice', () => {
    for (const { queries } of [web!, market!])
      expect(new Set(queries.map((q) => q.text)).size).toBe(queries.length);
  });

  test('what is irrelevant converts far less than what is relevant', () => {
    const mean = (relevant: boolean) => {
      const rates = INTENTS.filter((i) => i.relevant === relevant).map((i) => i.conversion);
      return rates.reduce((sum, rate) => sum + rate, 0) / rates.length;
    };
    expect(mean(false)).toBeLessThan(mean(true) / 5);
  });

  test('the marketplace reports product codes that its pattern knows, and no query is one', () => {
    const isCode = productCodeTest(ACCOUNT_SETTINGS['larkfell-market'].productCodePattern);
    const codes = market!.queries.filter((q) => isCode(q.text));
    expect(codes.length).toBeGreaterThan(100);
    expect(codes.every((q) => q.automaticIn.length === 1 && q.means.length === 0)).toBe(true);
    expect(web!.queries.some((q) => isCode(q.text))).toBe(false);
  });
});

describe('the faults that years have left', () => {
  const { negatives, keywords, adGroups, lists, hangings } = web!.structure;
  const samePlace = (a: (typeof negatives)[number], b: (typeof negatives)[number]) =>
    a.place.kind === b.place.kind && a.place.id === b.place.id;

  test('negatives that another of the same place covers', () => {
    const needless = negatives.filter((b) =>
      negatives.some((a) => a !== b && samePlace(a, b) && covers(a, b)),
    );
    expect(needless.length).toBeGreaterThan(1);
  });

  test('lists that hang nowhere', () => {
    expect(lists.filter((l) => !hangings.some((h) => h.listId === l.id)).map((l) => l.name)).toEqual([
      'Old imports 2023',
      'Sites & apps 2023',
    ]);
  });

  test('negatives that stand one by one in several campaigns, and lists hung within the days of data', () => {
    const [largest] = findCommonSets(shapeOf(web!.structure), { most: 1 });
    expect(largest).toMatchObject({ saves: 15, entries: { length: 5 }, campaignIds: { length: 5 } });
    const { firstDay } = web!.account;
    expect(hangings.filter((h) => h.since !== null && h.since > firstDay).length).toBeGreaterThan(10);
  });

  test('placements, all of them addresses in lists of their own kind', () => {
    const { placements } = web!.structure;
    const holders = new Set(lists.filter((l) => l.holds === 'placements').map((l) => l.id));
    expect(placements.length).toBeGreaterThan(50);
    for (const { address, listId } of placements) {
      expect(cleanPlacement(address)).toBe(address);
      expect(holders.has(listId)).toBe(true);
    }
  });

  test('live keywords that are shut out', () => {
    const gate = compileAccountGate(shapeOf(web!.structure));
    const byId = new Map(negatives.map((n) => [n.id, n]));
    const campaigns = new Map(web!.structure.campaigns.map((c) => [c.id, c.status]));
    const live = keywords.filter(
      (k) => campaigns.get(adGroups.find((g) => g.id === k.adGroupId)!.campaignId) === 'live',
    );
    const shutOut = live.filter(({ text, match, adGroupId }) =>
      gate
        .stoppers(text, adGroupId)
        .some((id) => match !== 'automatic' && textSeverity({ text, match }, byId.get(id)!) === 'shut out'),
    );
    expect(shutOut.length).toBeGreaterThan(0);
  });

  test('keywords that stand twice', () => {
    const texts = keywords.filter((k) => k.match === 'phrase').map((k) => k.text);
    expect(new Set(texts).size).toBeLessThan(texts.length);
  });
});

function shapeOf({ campaigns, adGroups, lists, hangings, negatives }: Structure): AccountShape {
  return {
    campaigns: campaigns.map(({ id }) => ({ id, adGroups: adGroups.filter((g) => g.campaignId === id) })),
    lists: lists.map(({ id }) => ({
      id,
      hungOn: hangings.filter((h) => h.listId === id).flatMap((h) => h.campaignId ?? []),
    })),
    negatives,
  };
}
