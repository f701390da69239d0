import { randomLcg } from 'd3';
import path from 'node:path';
import * as v from 'valibot';
import { shiftDay } from '@/core';
import type { SeedRequest } from '@/contracts/platform';
import { TermsQuerySchema, WordsQuerySchema } from '@/contracts/sift';
import { bytesOf } from '@/server/compute/window-columns';
import { createDeps } from '@/server/container';
import { findAccount } from '@/server/repositories/accounts';
import { connectAccount, stateOfLoad } from '@/server/use-cases/set-up';
import { listTerms, listWords } from '@/server/use-cases/sift-terms';
import { askForLoad, takeIn } from '@/server/use-cases/take-in';
import { withFreshDemo } from '../../scripts/steps/fresh-demo';
import { environmentOf, readSettings, type Settings } from '../../scripts/steps/settings';
import { makeAccount, type BenchAccount } from '../account';
import { benchBrowser } from '../browser';
import { count, ms, type Line } from '../measure';

const SLUG = 'bench';
const [CAMPAIGNS, GROUPS] = [20, 50];
const LAST_DAY = '2026-11-20';
/** Rows for a term: some stand in more than one ad group. */
const ROWS_PER_TERM = 1.3;

/** Sift over an account of 600,000 terms with 5,000 negatives in force, in a browser. */
export async function benchSift(quick: boolean): Promise<Line[]> {
  const [terms, negatives] = quick ? [60_000, 1_000] : [600_000, 5_000];
  const settings = readSettings('test');
  return withFreshDemo(settings, 0.02, async (address) => {
    await fillAccount(settings, makeAccount(terms, negatives));
    const size = `${count(terms)} terms, ${count(negatives)} negatives`;
    const memory = await measureSnapshot(settings, size);
    const lines = await benchBrowser(`${address}/${SLUG}/sift?days=60`, size, quick);
    return [memory, ...lines];
  });
}

const MOST_SNAPSHOT_MB = 400;

/** What a process takes more once it has a window, what is made from it, and has answered from it. */
async function measureSnapshot(settings: Settings, size: string): Promise<Line> {
  Object.assign(process.env, environmentOf(settings));
  const deps = createDeps();
  const taken = () => {
    globalThis.gc?.();
    const { heapUsed, external, arrayBuffers } = process.memoryUsage();
    return heapUsed + external + arrayBuffers;
  };
  try {
    const before = taken();
    const start = performance.now();
    const query = v.parse(TermsQuerySchema, { days: '60' });
    await listTerms(deps, SLUG, query);
    const took = performance.now() - start;
    await listWords(deps, SLUG, v.parse(WordsQuerySchema, { days: '60' }));
    const account = (await findAccount(deps.db, SLUG))!;
    const { rows, terms } = await deps.snapshots.get(deps.db, account, 60);
    const megabytes = Math.round((taken() - before + bytesOf(rows, terms)) / 1e6);
    return {
      ...{ task: 'a snapshot: read, and all that is made from it', size, ours: ms(took) },
      ...{ against: `limit: ${MOST_SNAPSHOT_MB} MB`, ratio: (megabytes / MOST_SNAPSHOT_MB).toFixed(2) },
      verdict: megabytes <= MOST_SNAPSHOT_MB ? `within: ${megabytes} MB` : 'OVER',
    };
  } finally {
    await deps.db.destroy();
  }
}

async function fillAccount(settings: Settings, account: BenchAccount): Promise<void> {
  Object.assign(process.env, environmentOf(settings));
  const deps = { ...createDeps(), files: path.join(settings.data, 'files') };
  try {
    const seed = toSeed(account);
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
      reportOf(account),
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

const campaignOf = (group: number) => group % CAMPAIGNS;
const keywordOf = ({ terms }: BenchAccount, group: number) =>
  terms[group * 7]!.split(' ').slice(0, 2).join(' ');

/** Twenty campaigns with fifty ad groups each, and the negatives on the account, on campaigns and in lists. */
function toSeed(account: BenchAccount): SeedRequest {
  const groups = Array.from({ length: CAMPAIGNS * GROUPS }, (_, g) => g);
  const live = { status: 'live' as const };
  return {
    account: { id: SLUG, name: 'Bench', currency: 'EUR', seed: 1, firstDay: LAST_DAY, today: LAST_DAY },
    structure: {
      campaigns: Array.from({ length: CAMPAIGNS }, (_, c) => ({
        ...{ id: `C${c}`, name: `Campaign ${c}`, ...live, channel: 'search', budgetMicros: 1_000_000 },
        ...{ location: [], audience: [], device: [], language: [], sharedBudget: null, endDate: null },
      })),
      adGroups: groups.map((g) => ({
        id: `G${g}`,
        campaignId: `C${campaignOf(g)}`,
        name: `Group ${g}`,
        ...live,
      })),
      keywords: groups.map((g) => ({
        ...{ id: `K${g}`, adGroupId: `G${g}`, text: keywordOf(account, g), match: 'broad', ...live },
        ...{ bidMicros: 1_000_000, changedOn: null },
      })),
      lists: Array.from({ length: 10 }, (_, l) => ({ id: `L${l}`, name: `List ${l}`, ...live })),
      hangings: Array.from({ length: CAMPAIGNS }, (_, c) => ({
        listId: `L${c % 10}`,
        campaignId: `C${c}`,
        ...live,
      })),
      negatives: account.negatives.map(({ text, match }, i) => ({
        ...{ id: `N${i}`, text, match, createdAt: '2026-01-01T00:00:00Z', ...live },
        place:
          i % 5 === 0
            ? { kind: 'account' as const, id: null }
            : i % 5 < 3
              ? { kind: 'campaign' as const, id: `C${i % CAMPAIGNS}` }
              : { kind: 'list' as const, id: `L${i % 10}` },
      })),
      exclusions: [],
    },
    queries: [],
  };
}

async function* reportOf(account: BenchAccount): AsyncIterable<Uint8Array> {
  const draw = randomLcg(0.9);
  const { terms, clicks, costMicros, conversions } = account;
  yield Buffer.from(
    'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions\n',
  );
  let lines: string[] = [];
  for (let i = 0; i < terms.length * ROWS_PER_TERM; i++) {
    const t = i < terms.length ? i : Math.floor(terms.length * draw() ** 2);
    const group = Math.floor(CAMPAIGNS * GROUPS * draw());
    const day = shiftDay(LAST_DAY, -Math.floor(58 * draw()));
    const cost = (costMicros[t]! / 1e6).toFixed(2);
    lines.push(
      `${day},Campaign ${campaignOf(group)},Group ${group},${keywordOf(account, group)},broad,${terms[t]},${9 * clicks[t]! + 3},${clicks[t]},${cost},${conversions[t]}`,
    );
    if (lines.length === 20_000 || i + 1 >= terms.length * ROWS_PER_TERM) {
      yield Buffer.from(`${lines.join('\n')}\n`);
      lines = [];
    }
  }
}
