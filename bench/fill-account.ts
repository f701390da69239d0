import { randomLcg } from 'd3';
import path from 'node:path';
import { shiftDay } from '@/core';
import type { SeedRequest } from '@/contracts/platform';
import { createDeps } from '@/server/container';
import { connectAccount, stateOfLoad } from '@/server/use-cases/set-up';
import { askForLoad, takeIn } from '@/server/use-cases/intake/take-in';
import { environmentOf, type Settings } from '../scripts/steps/settings';
import type { BenchAccount } from './account';

export const SLUG = 'bench';
const LAST_DAY = '2026-11-20';
/** Rows for a term: some stand in more than one ad group. */
const ROWS_PER_TERM = 1.3;

/** How an account is built around its terms. */
export type Shape = {
  campaigns: number;
  /** ad groups in each campaign */
  groups: number;
  lists: number;
  nameOf(campaign: number): string;
  hangs(list: number, campaign: number): boolean;
  /** the day from which the lists hang */
  since: string | null;
  /** in which list the i-th negative stands, when it stands in one; in turn where nothing is said */
  listOf?(negative: number): number;
};

/** Puts a made-up account on the stand-in platform of a running demo, and its report into Gate Post. */
export async function fillAccount(settings: Settings, account: BenchAccount, shape: Shape): Promise<void> {
  Object.assign(process.env, environmentOf(settings));
  const deps = { ...createDeps(), files: path.join(settings.data, 'files') };
  try {
    const seed = toSeed(account, shape);
    const answer = await fetch(`http://127.0.0.1:${settings.platformPort}/accounts/${SLUG}/seed`, {
      ...{ method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(seed) },
    });
    if (!answer.ok) throw new Error(await answer.text());
    await connectAccount(deps, {
      ...{ slug: SLUG, name: 'Bench', platformAccountId: SLUG, currency: 'EUR', steersBy: 'CPA' },
      ...{ targetMicros: 20_000_000, targetAcos: null, productCodePattern: null },
    });
    const [file] = await takeIn(
      deps,
      SLUG,
      { name: 'bench.csv', source: 'file', personId: 1 },
      reportOf(account, shape),
    );
    await askForLoad(deps, SLUG, file!.id, {});
    for (;;) {
      const load = await stateOfLoad(deps, SLUG, file!.id);
      if (load?.state === 'loaded') return;
      if (load?.state === 'failed') throw new Error(load.error ?? 'the load failed');
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  } finally {
    await deps.db.destroy();
  }
}

const campaignOf = (group: number, { campaigns }: Shape) => group % campaigns;
const keywordOf = ({ terms }: BenchAccount, group: number) =>
  terms[group * 7]!.split(' ').slice(0, 2).join(' ');

/** The negatives stand on the account, on campaigns and in lists. */
function toSeed(account: BenchAccount, shape: Shape): SeedRequest {
  const { campaigns, lists, nameOf, hangs, since } = shape;
  const groups = Array.from({ length: campaigns * shape.groups }, (_, g) => g);
  const live = { status: 'live' as const };
  return {
    account: { id: SLUG, name: 'Bench', currency: 'EUR', seed: 1, firstDay: LAST_DAY, today: LAST_DAY },
    structure: {
      campaigns: Array.from({ length: campaigns }, (_, c) => ({
        ...{ id: `C${c}`, name: nameOf(c), ...live, channel: 'search', budgetMicros: 1_000_000 },
        ...{ location: [], audience: [], device: [], language: [], sharedBudget: null, endDate: null },
        ...{ labels: [], priority: null },
      })),
      adGroups: groups.map((g) => ({
        id: `G${g}`,
        campaignId: `C${campaignOf(g, shape)}`,
        name: `Group ${g}`,
        ...live,
      })),
      keywords: groups.map((g) => ({
        ...{ id: `K${g}`, adGroupId: `G${g}`, text: keywordOf(account, g), match: 'broad', ...live },
        ...{ bidMicros: 1_000_000, changedOn: null },
      })),
      lists: Array.from({ length: lists }, (_, l) => ({
        ...{ id: `L${l}`, name: `List ${l}`, holds: 'words', ...live },
      })),
      hangings: Array.from({ length: lists * campaigns }, (_, i) => i)
        .filter((i) => hangs(i % lists, Math.floor(i / lists)))
        .map((i) => ({ listId: `L${i % lists}`, campaignId: `C${Math.floor(i / lists)}`, since, ...live })),
      negatives: account.negatives.map(({ text, match }, i) => ({
        ...{ id: `N${i}`, text, match, createdAt: '2026-01-01T00:00:00Z', ...live },
        place:
          i % 5 === 0
            ? { kind: 'account' as const, id: null }
            : i % 5 < 3
              ? { kind: 'campaign' as const, id: `C${i % campaigns}` }
              : { kind: 'list' as const, id: `L${shape.listOf?.(i) ?? i % lists}` },
      })),
      exclusions: [],
      placements: [],
    },
    queries: [],
  };
}

async function* reportOf(account: BenchAccount, shape: Shape): AsyncIterable<Uint8Array> {
  const { campaigns, groups, nameOf } = shape;
  const draw = randomLcg(0.9);
  const { terms, clicks, costMicros, conversions } = account;
  yield Buffer.from(
    'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions\n',
  );
  let lines: string[] = [];
  for (let i = 0; i < terms.length * ROWS_PER_TERM; i++) {
    const t = i < terms.length ? i : Math.floor(terms.length * draw() ** 2);
    const group = Math.floor(campaigns * groups * draw());
    const day = shiftDay(LAST_DAY, -Math.floor(58 * draw()));
    const cost = (costMicros[t]! / 1e6).toFixed(2);
    lines.push(
      `${day},${nameOf(campaignOf(group, shape))},Group ${group},${keywordOf(account, group)},broad,${terms[t]},${9 * clicks[t]! + 3},${clicks[t]},${cost},${conversions[t]}`,
    );
    if (lines.length === 20_000 || i + 1 >= terms.length * ROWS_PER_TERM) {
      yield Buffer.from(`${lines.join('\n')}\n`);
      lines = [];
    }
  }
}
