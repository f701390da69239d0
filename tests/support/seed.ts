import type { PlatformQuery, SeedRequest } from '@/contracts/platform';

/** What the broad keyword of each ad group says. */
const WORDS_OF = { G1: 'bee hive', G2: 'hive stand', G3: 'bee course' };

/** One query as the stand-in knows it, meant for an ad group; says only what matters. */
export function aQuery(
  text: string,
  over: Partial<PlatformQuery> & { at?: keyof typeof WORDS_OF } = {},
): PlatformQuery {
  const { at = 'G1', ...rest } = over;
  return {
    text,
    daily: 20,
    ctr: 0.3,
    cvr: 0,
    valueMicros: 40_000_000,
    unreported: false,
    cpcMicros: 500_000,
    means: WORDS_OF[at].split(' '),
    automaticIn: [],
    ...rest,
  };
}

/**
 * A small account: campaign Hives (C1: ad groups G1 Starter, G2 Stands) and campaign Courses (C2: G3 Weekend), a list
 * Work (S1, hangs on Courses) and a list Old (S2, hangs nowhere), ten days of traffic up to 20 Nov.
 */
export function aSeed(over: Partial<Pick<SeedRequest, 'queries' | 'structure'>> = {}): SeedRequest {
  const campaign = (id: string, name: string) => ({
    ...{
      id,
      name,
      status: 'live' as const,
      channel: 'search',
      budgetMicros: 50_000_000,
      sharedBudget: null,
      priority: null,
      labels: [],
      endDate: null,
    },
    ...{ location: [], audience: [], device: [], language: [] },
  });
  const adGroup = (id: string, campaignId: string, name: string) => ({
    id,
    campaignId,
    name,
    status: 'live' as const,
  });
  const keyword = (id: string, adGroupId: string, text: string, match: 'broad' | 'exact' = 'broad') => ({
    ...{ id, adGroupId, text, match, status: 'live' as const, bidMicros: 700_000, changedOn: null },
  });
  return {
    account: {
      id: 'small',
      name: 'Small',
      currency: 'EUR',
      seed: 7,
      firstDay: '2026-11-12',
      today: '2026-11-22',
    },
    structure: {
      campaigns: [campaign('C1', 'Hives'), campaign('C2', 'Courses')],
      adGroups: [
        adGroup('G1', 'C1', 'Starter'),
        adGroup('G2', 'C1', 'Stands'),
        adGroup('G3', 'C2', 'Weekend'),
      ],
      keywords: [
        keyword('K1', 'G1', 'bee hive'),
        keyword('K2', 'G2', 'hive stand'),
        keyword('K3', 'G3', 'bee course'),
        keyword('K4', 'G1', 'free hive', 'exact'),
      ],
      lists: [
        { id: 'S1', name: 'Work', status: 'live', holds: 'words' },
        { id: 'S2', name: 'Old', status: 'live', holds: 'words' },
      ],
      hangings: [{ listId: 'S1', campaignId: 'C2', status: 'live', since: null }],
      negatives: [
        {
          id: 'E1',
          text: 'salary',
          match: 'broad',
          place: { kind: 'list', id: 'S1' },
          createdAt: '2026-01-01T00:00:00Z',
          status: 'live',
        },
        {
          id: 'E2',
          text: 'tattoo',
          match: 'phrase',
          place: { kind: 'list', id: 'S2' },
          createdAt: '2026-01-01T00:00:00Z',
          status: 'live',
        },
      ],
      exclusions: [],
      placements: [],
    },
    queries: [
      aQuery('bee hive kit', { daily: 80, cvr: 0.4 }),
      aQuery('free bee hive plans'),
      aQuery('bee hive movie'),
      aQuery('hive stand movie', { at: 'G2' }),
      aQuery('bee course tattoo', { at: 'G3' }),
      aQuery('bee course salary', { at: 'G3' }),
      aQuery('rare thing', { unreported: true }),
      aQuery('LK-2041', { cpcMicros: 400_000, means: [], automaticIn: ['G1'] }),
    ],
    ...over,
  };
}

/** The same account, but Courses serves a query of Hives, too: seldom before it is stopped there, and then always. */
export function aSeedServedElsewhere(): SeedRequest {
  const seed = aSeed();
  const queries = seed.queries.map((q) => (q.text === 'bee hive movie' ? { ...q, means: ['course'] } : q));
  return { ...seed, queries };
}
