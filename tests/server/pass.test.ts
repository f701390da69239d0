import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { shiftDay, stops, USUAL_LIMITS, type Change } from '@/core';
import { SettingsSchema } from '@/contracts/account';
import { TermsQuerySchema, WordsQuerySchema } from '@/contracts/sift';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftPass } from '@/server/use-cases/sift/pass/draft-pass';
import { viewPass } from '@/server/use-cases/sift/pass/view-pass';
import { tagWords } from '@/server/use-cases/sift/remember';
import { listTerms, listThemes, listWords } from '@/server/use-cases/sift/sift-terms';
import { viewTerm } from '@/server/use-cases/sift/view-term';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeOwnWorld, type World } from '../support/world';

/** Newest day of the report; the window ends two days before. */
const NEWEST = '2026-11-20';
const [RECENT, OLD] = [shiftDay(NEWEST, -5), shiftDay(NEWEST, -80)];

type Served = {
  day?: string;
  group?: string;
  term: string;
  clicks: number;
  cost: number;
  conversions?: number;
};
const line = ({ day = RECENT, group = 'Starter', term, clicks, cost, conversions = 0 }: Served) =>
  [
    day,
    'Hives',
    group,
    `${group.toLowerCase()} hive`,
    'phrase',
    term,
    clicks * 20,
    clicks,
    cost,
    conversions,
  ].join(',');
const each = (count: number, of: (i: number) => Served) => Array.from({ length: count }, (_, i) => of(i));

const REPORT = [
  'Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions',
  ...[
    ...each(12, (i) => ({ term: `starter hive ${i}`, clicks: 60, cost: 30, conversions: 3 })),
    ...each(12, (i) => ({ day: OLD, term: `starter hive ${i}`, clicks: 60, cost: 30, conversions: 3 })),
    // words at fault: one that never brought anything, one that did once, one that a keyword holds, one of our own
    ...each(8, (i) => ({ day: OLD, term: `hive jobs ${i}`, clicks: 40, cost: 20 })),
    ...each(8, (i) => ({ term: `hive jobs ${i}`, clicks: 10, cost: 5 })),
    ...each(8, (i) => ({
      day: OLD,
      term: `hive wholesale ${i}`,
      clicks: 60,
      cost: 30,
      conversions: i === 3 ? 1 : 0,
    })),
    ...each(8, (i) => ({ term: `hive wholesale ${i}`, clicks: 10, cost: 4 })),
    ...each(8, (i) => ({ term: `hive larkfell ${i}`, clicks: 50, cost: 25 })),
    ...each(8, (i) => ({ group: 'Maps', term: `bee ${i} maps`, clicks: 50, cost: 25 })),
    ...each(4, (i) => ({ group: 'Maps', term: `chart ${i}`, clicks: 50, cost: 25, conversions: 4 })),
    // sold in the days before the window
    { day: OLD, term: 'starter hive sold', clicks: 60, cost: 24, conversions: 5 },
    { term: 'starter hive sold', clicks: 40, cost: 36 },
    // worse than its neighbours, and an ad group that is too dear as a whole
    { term: 'starter hive kit', clicks: 200, cost: 90, conversions: 9 },
    { term: 'hive kit large', clicks: 200, cost: 90, conversions: 9 },
    { term: 'starter hive kit large', clicks: 300, cost: 300 },
    ...each(10, (i) => ({ group: 'Silver', term: `silver ${i}`, clicks: 100, cost: 400, conversions: 1 })),
    { group: 'Silver', term: 'silver plain', clicks: 90, cost: 360, conversions: 0.6 },
    { day: NEWEST, term: 'starter hive 0', clicks: 1, cost: 0.5 },
  ].map(line),
].join('\n');

let world: World;
beforeAll(async () => {
  world = await makeOwnWorld({
    name: 'Pass',
    currency: 'EUR',
    steersBy: 'CPA',
    target: '20',
    person: 'Maren Oakes',
  });
  await world.load(REPORT);
});
afterAll(() => world.close());

const pass = () => viewPass(world.deps, world.slug, {});
const put = (words: { ngram: string }[], terms?: number[]) =>
  draftPass(world.deps, world.slug, world.personId, { words, terms });
const wordOf = async (ngram: string) => (await pass()).words.find((word) => word.ngram === ngram);
const tray = () => viewTray(world.deps, world.slug);
async function emptyTray() {
  const { changes } = await tray();
  if (changes.length > 0)
    await removeFromTray(
      world.deps,
      world.slug,
      changes.map(({ id }) => id),
    );
}
const terms = (query: Record<string, string> = {}) =>
  listTerms(world.deps, world.slug, v.parse(TermsQuerySchema, { most: '500', ...query }));
const lineOf = async (raw: string) => (await terms()).lines.find((one) => one.raw === raw)!;

describe('evidence by all days that are kept', () => {
  test('a term that sold before the window does not surely miss, and says what it is judged by', async () => {
    const { evidence, clicks, conversions } = await lineOf('starter hive sold');
    expect([clicks, conversions]).toEqual([40, 0]);
    expect(evidence).toMatchObject({ clicks: 100, conversions: 5, since: OLD });
    expect(evidence!.misses).toBeLessThan(0.8); // by the window alone it would be surely so
  });

  test('the ready view of what surely misses shows nothing else', async () => {
    const sure = await terms({ evidence: 'sure' });
    expect(sure.lines.length).toBeGreaterThan(0);
    expect(sure.lines.every(({ evidence }) => evidence!.misses >= 0.95)).toBe(true);
    const all = await terms();
    expect(sure.total).toBe(all.lines.filter(({ evidence }) => (evidence?.misses ?? 0) >= 0.95).length);
  });

  test('a term that is worse than its neighbours is told from an ad group that misses as a whole', async () => {
    const large = await viewTerm(world.deps, world.slug, {
      term: (await lineOf('starter hive kit large')).id,
    });
    expect(large.beside!.worse).toBeGreaterThan(0.95);
    expect(large.beside!.expected).toBeGreaterThan(5);
    expect(large.beside!.adGroup!.misses).toBeLessThan(0.95);
    const silver = await viewTerm(world.deps, world.slug, { term: (await lineOf('silver plain')).id });
    expect(silver.beside!.worse).toBeLessThan(0.95);
    expect(silver.beside!.adGroup).toMatchObject({ name: 'Silver', campaign: 'Hives', clicks: 1_090 });
    expect(silver.beside!.adGroup!.misses).toBeGreaterThan(0.95);
    // 0.9 to 1.2 conversions in a hundred clicks, at 20 a conversion
    expect(silver.beside!.adGroup!.paysMicros).toBeGreaterThan(150_000);
    expect(silver.beside!.adGroup!.paysMicros).toBeLessThan(450_000);
  });
});

describe('words at fault', () => {
  const words = (query: Record<string, string> = {}) =>
    listWords(world.deps, world.slug, v.parse(WordsQuerySchema, query));

  test('come first among the words, with what is held against them; what can’t be judged follows', async () => {
    const { lines, since } = await words();
    expect(since).toBe(OLD);
    const judged = lines.filter(({ fault }) => fault !== null);
    expect(judged.map(({ ngram }) => ngram)).toContain('jobs');
    const order = judged.map(({ fault }) => fault!.probability);
    expect(order).toEqual([...order].sort((a, b) => b - a));
    expect(lines.findIndex(({ fault }) => fault === null)).toBe(judged.length);
    const jobs = judged.find(({ ngram }) => ngram === 'jobs')!;
    expect(jobs.fault).toMatchObject({ terms: 8, clicks: 400, conversions: 0 });
    expect(jobs).toMatchObject({ terms: 8, costMicros: 40_000_000 }); // in the window
  });

  test('what holds a shorter one that surely is stands aside, and other rankings bear the same figure', async () => {
    const [fault, cost] = [await words(), await words({ rank: 'without', forms: 'no' })];
    expect(fault.lines.some(({ ngram }) => ngram === 'hive jobs')).toBe(false);
    const of = (answer: typeof fault) => answer.lines.find(({ ngram }) => ngram === 'jobs')!.fault!;
    expect(of(cost).probability).toBeCloseTo(of(fault).probability, 9);
    expect(of(cost).expected).toBeCloseTo(of(fault).expected, 9);
  });

  test('themes bear it too', async () => {
    const { lines } = await listThemes(world.deps, world.slug, v.parse(TermsQuerySchema, {}));
    const theme = lines.find(({ words: of }) => of.includes('jobs'))!;
    expect(theme.fault!.probability).toBeGreaterThan(0.8);
  });

  test('a target that they reach acquits them', async () => {
    const settle = (target: string) => changeSettings(world.deps, world.slug, world.personId, { target });
    await settle('4000');
    expect((await pass()).words).toEqual([]);
    await settle('20');
    expect(await wordOf('jobs')).toBeDefined();
  });
});

describe('the pass', () => {
  const name = (typed: string) =>
    changeSettings(
      world.deps,
      world.slug,
      world.personId,
      v.parse(SettingsSchema, { brandWords: typed.split(',') }),
    );

  test('offers what can be stopped, and says what stands against the rest', async () => {
    await name('Larkfell, larkfell ');
    const { words, barred } = await pass();
    expect(words.map(({ ngram }) => ngram)).toEqual(expect.arrayContaining(['jobs', 'wholesale']));
    expect(barred.map(({ ngram, by }) => [ngram, by])).toEqual(
      expect.arrayContaining([
        ['larkfell', 'brand word'],
        ['maps', 'live keyword'],
      ]),
    );
    expect(words.some(({ ngram }) => ['larkfell', 'maps'].includes(ngram))).toBe(false);
  });

  test('brand words are a setting with its entry and its undo', async () => {
    const { lines } = await viewLedger(world.deps, world.slug);
    const entry = lines.find(({ what }) => what.startsWith('Brand words'))!;
    expect(entry.what).toBe('Brand words: larkfell (before: none)');
    await undoEntry(world.deps, world.slug, world.personId, entry.id);
    expect((await pass()).barred.some(({ by }) => by === 'brand word')).toBe(false);
    await name('larkfell');
  });

  test('around a protected term, longer negatives leave it open', async () => {
    const wholesale = (await wordOf('wholesale'))!;
    expect(wholesale.leavesOpen).toEqual({ count: 1, first: ['hive wholesale 3'] });
    expect(wholesale.negatives.count).toBe(7);
    await put([{ ngram: 'wholesale' }]);
    const { changes } = await tray();
    expect(changes).toHaveLength(7);
    for (const { change } of changes) expect(stopsText(change, 'hive wholesale 3')).toBe(false);
    expect(await wordOf('wholesale')).toBeUndefined();
    await emptyTray();
  });

  test('what is put in the tray is no longer to be gained, and the sums of both are exact', async () => {
    const before = await pass();
    const jobs = before.words.find(({ ngram }) => ngram === 'jobs')!;
    expect(jobs.places[0]).toMatchObject({ name: 'the whole account', stops: { terms: 8, clicks: 80 } });
    expect(jobs.places[0]!.stops.costMicros).toBe(40_000_000);
    expect(before.stoppedMicros).toBe(0);
    const [outcome] = await put([{ ngram: 'jobs' }]);
    expect(outcome).toMatchObject({ outcome: 'drafted', said: 'Stop “jobs” (phrase) in the whole account' });
    const after = await pass();
    expect(after.stoppedMicros).toBe(40_000_000);
    expect(after.gain.words.costMicros).toBe(before.gain.words.costMicros - 40_000_000);
    expect(after.gain.words.risks).toBeLessThan(before.gain.words.risks);
    const [change] = (await tray()).changes;
    expect(change!.why).toMatch(
      /^“jobs” is at fault: its ad groups would have brought \d+\.\d conversions, it brought 0$/,
    );
    await expect(put([{ ngram: 'jobs' }])).rejects.toThrow('not offered any more');
    await emptyTray();
  });

  test('a list that holds a word alike is the likely place, where it stops enough', async () => {
    const campaign = String(
      (await world.db('campaign').where({ name: 'Hives', account_id: world.accountId }).first('campaign_id'))
        .campaign_id,
    );
    const listId = 'new:11111111-1111-4111-8111-111111111111';
    const made: Change[] = [
      { kind: 'make list', listId, name: 'Work' },
      { kind: 'add negative', text: 'summer job', match: 'phrase', place: { kind: 'list', id: listId } },
      { kind: 'hang list', listId, campaignId: campaign },
    ];
    await draftChanges(
      world.deps,
      world.slug,
      world.personId,
      made.map((change) => ({ change })),
    );
    const [list, everywhere] = (await wordOf('jobs'))!.places;
    expect(list).toMatchObject({ name: 'the list Work', place: { kind: 'list', id: listId } });
    expect(list!.note).toContain('“summer job” stands there');
    expect(everywhere!.name).toBe('the whole account');
    await draftPass(world.deps, world.slug, world.personId, {
      words: [{ ngram: 'jobs', place: { kind: 'account', id: null } }],
    });
    expect((await tray()).changes.at(-1)!.said).toBe('Stop “jobs” (phrase) in the whole account');
    await emptyTray();
  });

  test('then terms that surely miss and are worse than their neighbours; ad groups that miss are named for their bids', async () => {
    const { terms: missing, groups, left } = await pass();
    expect(missing.map(({ raw }) => raw)).toContain('starter hive kit large');
    expect(missing.some(({ raw }) => raw.startsWith('silver'))).toBe(false);
    expect(groups.map(({ name }) => name)).toEqual(['Silver']);
    expect(left.first.some(({ raw }) => raw === 'starter hive kit large')).toBe(false);
    const { id } = missing.find(({ raw }) => raw === 'starter hive kit large')!;
    const outcomes = await put([], [id]);
    expect(outcomes).toMatchObject([
      { outcome: 'drafted', said: 'Stop “starter hive kit large” (exact) in campaign Hives' },
    ]);
    expect((await pass()).terms.some(({ raw }) => raw === 'starter hive kit large')).toBe(false);
    await emptyTray();
  });

  test('what has no room at its place is left out, and said', async () => {
    const limits = (accountNegatives: number) =>
      changeSettings(world.deps, world.slug, world.personId, {
        limits: { ...USUAL_LIMITS, accountNegatives },
      });
    await limits(3);
    const outcomes = await put([{ ngram: 'wholesale' }, { ngram: 'jobs' }]);
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['drafted', 'refused']);
    expect(outcomes[1]).toMatchObject({
      said: '“wholesale” was left out: the account may hold 3 negatives, and it would be 7. Choose another place for it.',
    });
    await emptyTray();
    await expect(put([{ ngram: 'wholesale' }])).rejects.toThrow('the account may hold 3 negatives');
    await limits(USUAL_LIMITS.accountNegatives);
  });

  test('a word that a person calls neutral is offered no more', async () => {
    await tagWords(world.deps, world.slug, world.personId, { text: 'jobs', tag: 'neutral' });
    expect(await wordOf('jobs')).toBeUndefined();
    await tagWords(world.deps, world.slug, world.personId, { text: 'jobs', tag: null });
    expect(await wordOf('jobs')).toBeDefined();
  });

  test('all of a step at a press stops no protected term and no live keyword', async () => {
    const { words } = await pass();
    const outcomes = await put(words.map(({ ngram }) => ({ ngram })));
    expect(outcomes.every(({ outcome }) => outcome === 'drafted' || outcome === 'already there')).toBe(true);
    const after = await pass();
    expect([after.words, after.gain.words.costMicros]).toEqual([[], 0]);
    const { changes } = await tray();
    for (const { change, touched } of changes) {
      expect(stopsText(change, 'hive wholesale 3') || stopsText(change, 'starter hive')).toBe(false);
      expect(touched).toEqual([]);
    }
    await emptyTray();
  });
});

describe('an account without any conversion', () => {
  test('judges nobody, and shows its words by what they cost', async () => {
    const own = await makeOwnWorld({
      name: 'Nothing',
      currency: 'EUR',
      steersBy: 'CPA',
      target: '20',
      person: 'Maren Oakes',
    });
    await own.load(
      [
        REPORT.split('\n')[0]!,
        line({ term: 'hive jobs', clicks: 90, cost: 9 }),
        line({ day: NEWEST, term: 'hive', clicks: 1, cost: 1 }),
      ].join('\n'),
    );
    const answer = await viewPass(own.deps, own.slug, {});
    expect([answer.words, answer.barred, answer.terms]).toEqual([[], [], []]);
    const { lines } = await listWords(own.deps, own.slug, v.parse(WordsQuerySchema, {}));
    expect(lines.map(({ ngram, fault }) => [ngram, fault])).toEqual([
      ['hive', null],
      ['jobs', null],
    ]);
    await own.close();
  });
});

const stopsText = (change: Change, text: string) =>
  change.kind === 'add negative' && stops({ text: change.text, match: change.match }, text);
