import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { OwnKeywordsQuerySchema, OwnKeywordsViewSchema, PlanRequestSchema } from '@/contracts/promotion';
import { fetchReport, moveClock } from '@/server/use-cases/intake/fetch-report';
import { viewOwnKeywords } from '@/server/use-cases/promotion/own-keywords';
import { draftPromotions } from '@/server/use-cases/promotion/plan-promotions';
import { setSeat } from '@/server/use-cases/promotion/seats';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { leaveKnot, takeKnotBack } from '@/server/use-cases/untangle/knots/leave-knot';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  const { structure, queries } = aSeed();
  const [adGroup] = structure.adGroups;
  const [keyword] = structure.keywords;
  world = await makeWorld(
    aSeed({
      structure: {
        ...structure,
        adGroups: [
          ...structure.adGroups,
          { ...adGroup!, id: 'G4', name: 'Hives exact' },
          { ...adGroup!, id: 'G5', name: 'Hives phrase' },
        ],
        keywords: [
          ...structure.keywords,
          { ...keyword!, id: 'K9', text: 'bee hive movie', match: 'exact', changedOn: '2026-11-16' },
        ],
      },
      queries: [
        ...queries.map((one) => (one.text === 'bee hive movie' ? { ...one, daily: 60 } : one)),
        aQuery('blue bee hive kit', { daily: 40, cvr: 0.3 }),
        // most of what is searched for brings nothing
        ...Array.from({ length: 24 }, (_, i) => aQuery(`bee hive thing ${i}`)),
      ],
    }),
  );
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;

async function view(asked: v.InferInput<typeof OwnKeywordsQuerySchema> = {}) {
  const answer = await viewOwnKeywords(...at(), v.parse(OwnKeywordsQuerySchema, asked));
  expect(v.parse(OwnKeywordsViewSchema, answer)).toEqual(answer);
  return answer;
}

describe('exact keywords that miss their target', () => {
  test('stand with all they brought, and what they brought since they were changed', async () => {
    const { lines, counts, costMicros } = await view();
    expect(lines.map(({ text }) => text)).toEqual(['bee hive movie']);
    expect(counts).toEqual({ open: 1, left: 0 });
    const [line] = lines;
    expect(costMicros).toBe(line!.ever.costMicros);
    expect(line).toMatchObject({
      changedOn: '2026-11-16',
      target: 18_000_000,
      bidMicros: 700_000,
      drafted: null,
    });
    const { rows } = await world.db.raw<{ rows: { clicks: string; cost: string }[] }>(
      `select sum(clicks) as clicks, sum(cost_micros) as cost from term_day join keyword using (account_id, keyword_id)
        where keyword.text = 'bee hive movie' and day >= '2026-11-16' and day <= '2026-11-18'`,
    );
    expect(line!.since).toMatchObject({ clicks: Number(rows[0]!.clicks), costMicros: Number(rows[0]!.cost) });
    expect(line!.ever.clicks).toBeGreaterThan(line!.since!.clicks);
    expect(line!.misses).toBeGreaterThan(0.8);
    expect(line!.paysMicros).toBeLessThan(line!.bidMicros!);
    expect((await view({ sure: '50' })).counts.open).toBeGreaterThanOrEqual(1);
  });

  test('are told with what the tray does to them', async () => {
    const [{ id, bidMicros, paysMicros }] = (await view()).lines as [
      Awaited<ReturnType<typeof view>>['lines'][0],
    ];
    await draftChanges(...by(), [
      { change: { kind: 'set bid', keywordId: id, bidMicros: paysMicros!, wasMicros: bidMicros! } },
    ]);
    expect((await view()).lines[0]!.drafted).toContain('Bid ');
  });

  test('are left until they have more clicks, and taken up again', async () => {
    const [line] = (await view()).lines;
    const knot = { kind: 'keyword' as const, key: line!.id };
    await leaveKnot(...by(), { ...knot, why: 'more clicks', until: null, moreClicks: 20 });
    expect((await view()).counts).toEqual({ open: 0, left: 1 });
    const [left] = await world.db('left_knot').select('state');
    expect(left.state).toBe(String(line!.ever.clicks + 20));
    await world.db('left_knot').update({ state: String(line!.ever.clicks) });
    expect((await view()).counts).toEqual({ open: 1, left: 0 });
    expect(await takeKnotBack(...by(), knot)).toEqual({ why: 'more clicks', until: null, moreClicks: 1 });
  });
});

test('weeks later the seats serve what was promoted, and a conversion costs what the bid was reckoned for', async () => {
  const { group } = await setSeat(...by(), {
    ...{ group: await keyOfHives(), match: 'broad', seat: { campaign: 'Hives', adGroup: 'Starter' } },
  });
  const outcomes = await draftPromotions(
    ...by(),
    v.parse(PlanRequestSchema, { terms: [{ term: 'bee hive kit', group }], days: '7' }),
  );
  const bids = outcomes.flatMap((one) =>
    one.outcome === 'drafted' && one.change.kind === 'add keyword' ? [one.change.bidMicros] : [],
  );
  await sendTray(...by());
  await world.work();
  const sentOn = await today();
  for (let week = 0; week < 2; week++) await moveClock(world.deps, world.slug, 7);
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
  const { rows } = await world.db.raw<{
    rows: { term: string; seat: string; match: string; clicks: number; cost: number; conversions: number }[];
  }>(
    `select term.key as term, ad_group.name as seat, keyword.match, sum(clicks)::integer as clicks,
            sum(cost_micros)::float as cost, sum(conversions)::float as conversions
       from term_day
       join term using (account_id, term_id) join ad_group using (account_id, ad_group_id)
       join keyword using (account_id, keyword_id)
      where day > :sentOn and term.key in ('bee hive kit', 'blue bee hive kit')
      group by 1, 2, 3 order by 1, 2`,
    { sentOn },
  );
  const served = rows.map(({ term, seat, match }) => `${term}: ${seat}, ${match}`);
  expect(served).toContain('bee hive kit: Hives exact, exact');
  expect(served).toContain('blue bee hive kit: Hives phrase, phrase');
  // Nothing of it is left where it was.
  expect(rows.some(({ seat }) => seat === 'Starter')).toBe(false);
  for (const { clicks, cost, conversions } of rows.filter(({ seat }) => seat.startsWith('Hives '))) {
    // What clicks cost varies from day to day, about the bid.
    expect(cost / clicks / bids[0]!).toBeLessThan(1.1);
    expect(cost / conversions).toBeLessThanOrEqual(18_000_000);
  }
});

async function keyOfHives(): Promise<string> {
  const { id } = await world.db('campaign').where({ name: 'Hives' }).first('campaign_id as id');
  return `campaign ${id}`;
}

async function today(): Promise<string> {
  const { day } = await world.db('account').first('platform_day as day');
  return day;
}
