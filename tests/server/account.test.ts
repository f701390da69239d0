import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { addAccount, shortName } from '@/server/use-cases/account/add-account';
import { countOpen } from '@/server/use-cases/account/count-open';
import { viewConflicts } from '@/server/use-cases/untangle/view-conflicts';
import { changeSettings, retireAccount } from '@/server/use-cases/account/change-settings';
import { setOwnTargets } from '@/server/use-cases/account/own-targets';
import { addMember, setRole } from '@/server/use-cases/account/people';
import { findCodes, viewAccount } from '@/server/use-cases/account/view-account';
import type { MemberRole } from '@/contracts/roles';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { viewKept } from '@/server/use-cases/sift/set-verdict';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { weighChoice } from '@/server/use-cases/sift/weigh-choice';
import { TermsQuerySchema } from '@/contracts/sift';
import * as v from 'valibot';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const set = (fields: Parameters<typeof changeSettings>[3]) =>
  changeSettings(world.deps, world.slug, world.personId, fields);
const settings = async () => (await viewAccount(world.deps, world.slug, world.personId)).settings;
const newest = async () => (await viewLedger(world.deps, world.slug)).lines[0]!;
const undoNewest = async () => undoEntry(world.deps, world.slug, world.personId, (await newest()).id);
const lines = async (query: Record<string, string> = {}) =>
  (
    await listTerms(
      world.deps,
      world.slug,
      v.parse(TermsQuerySchema, { view: 'remaining', returns: 'any', ...query }),
    )
  ).lines;

describe('a setting', () => {
  test.each([
    ['name', { name: 'Larkfell web' }, { name: 'Larkfell web' }],
    ['target', { target: '20,5' }, { targetMicros: 20_500_000 }],
    ['steering', { steersBy: 'ACoS' as const, target: '24.5' }, { steersBy: 'ACoS', targetAcos: 0.245 }],
    ['days', { windowDays: 14, lagDays: 1 }, { windowDays: 14, lagDays: 1 }],
    ['files', { fileDays: 30 }, { fileDays: 30 }],
    ['match type', { defaultMatch: 'exact' as const }, { defaultMatch: 'exact' }],
    ['keeper', { keeperConversions: 2.5 }, { keeperConversions: 2.5 }],
    ['protection off', { keeperConversions: null }, { keeperConversions: null }],
  ])('%s is set, stands in the ledger, and is undone there', async (_, wanted, is) => {
    const before = await settings();
    const { said } = await set(wanted);
    expect(said.length).toBeGreaterThan(0);
    expect(await settings()).toMatchObject(is);
    for (let i = 0; i < said.length; i++) {
      const { lines: all } = await viewLedger(world.deps, world.slug);
      const open = all.find((l) => l.about === 'setting' && l.canUndo && said.includes(l.what))!;
      await undoEntry(world.deps, world.slug, world.personId, open.id);
      await expect(undoEntry(world.deps, world.slug, world.personId, open.id)).rejects.toThrow(/already/);
    }
    expect(await settings()).toEqual(before);
  });

  test.each([
    [{ target: '-3' }, /amount such as 18.00 EUR/],
    [{ target: '18.505' }, /amount such as/],
    [{ currency: 'CHF' }, /Figures in EUR are loaded/],
    [{ platformAccountId: 'nobody' }, /no account nobody/],
  ])('%o is refused with the remedy, and nothing changes', async (wanted, why) => {
    const before = await settings();
    await expect(set(wanted)).rejects.toThrow(why);
    expect(await settings()).toEqual(before);
  });

  test('protection follows it at once', async () => {
    expect((await viewKept(world.deps, world.slug)).earned).toBeGreaterThan(0);
    await set({ keeperConversions: null });
    expect((await viewKept(world.deps, world.slug)).earned).toBe(0);
    await undoNewest();
    expect((await viewKept(world.deps, world.slug)).earned).toBeGreaterThan(0);
  });

  test('limits decide what may be a negative', async () => {
    const before = (await settings()).limits;
    const [line] = await lines({ text: 'free bee hive plans' });
    const refusal = async () =>
      (await weighChoice(world.deps, world.slug, { term: line!.id, positions: [] })).choices.find(
        (c) => c.match === 'exact',
      )!.refusal;
    expect(await refusal()).toBeNull();
    await set({ limits: { ...before, wordsInNegative: 3 } });
    expect(await refusal()).toMatch(/may hold 3 words; this one holds 4/);
    await undoNewest();
    expect(await refusal()).toBeNull();
  });
});

describe('the pattern of product codes', () => {
  test('shows what it catches, and sorts loaded terms anew, there and back', async () => {
    await world.load(
      'Day,Campaign,Ad group,Search term,Clicks,Cost\n' +
        '2026-11-18,Hives,Starter,B0-77-X,3,4.10\n2026-11-18,Hives,Starter,b0 77 x,2,1.00\n',
    );
    expect(await findCodes(world.deps, world.slug, 'B0-\\d+-X')).toEqual({
      caught: 1,
      of: expect.any(Number),
      first: ['B0-77-X'],
    });
    const kinds = async () =>
      (await lines({ text: '77' })).map(({ raw, kind, clicks }) => `${raw} ${kind} ${clicks}`).sort();
    // Both are the same words, so one term, until one of them is a code by itself.
    expect(await kinds()).toEqual(['B0-77-X query 5']);
    const before = (await settings()).productCodePattern;
    await set({ productCodePattern: `${before}|B0-\\d+-X` });
    expect(await kinds()).toEqual(['B0-77-X code 5']);
    await world.load(
      'Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-17,Hives,Starter,b0 77 x,7,1.00\n',
    );
    expect(await kinds()).toEqual(['B0-77-X code 5', 'b0 77 x query 7']);
    // No code any more: its facts go to the term of the same words, and are all there.
    await set({ productCodePattern: before });
    expect(await kinds()).toEqual(['b0 77 x query 12']);
  });

  test('facts of one day out of different loads stay apart, so that each load can be taken back', async () => {
    const before = (await settings()).productCodePattern;
    await set({ productCodePattern: `${before}|Q-1` });
    const report = (term: string, clicks: number) =>
      `Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-18,Hives,Starter,${term},${clicks},1.00\n`;
    await world.load(report('Q-1', 3));
    await world.load(report('q 1', 4));
    await set({ productCodePattern: before });
    const rows = await world.db('term').whereIn('key', ['q-1', 'q 1']).orderBy('key').select('key', 'kind');
    expect(rows).toEqual([
      { key: 'q 1', kind: 'query' },
      { key: 'q-1', kind: 'code' },
    ]);
  });
});

describe('targets of their own', () => {
  test('a term is read against its product group, else its campaign, else the account', async () => {
    const { campaigns, adGroups } = await viewAccount(world.deps, world.slug, world.personId);
    const [hives] = campaigns.filter((c) => c.name === 'Hives');
    const [starter] = adGroups.filter((g) => g.name === 'Starter');
    const rate = async (text: string) => {
      const [line] = await lines({ text });
      return line!.evidence!.breakEvenCvr;
    };
    const [ofStarter, ofStands] = [await rate('bee hive kit'), await rate('hive stand movie')];
    const put = (body: Parameters<typeof setOwnTargets>[3]) =>
      setOwnTargets(world.deps, world.slug, world.personId, body);
    const ofHives = { campaignId: hives!.id, target: '9' };
    await put({ campaigns: [ofHives], productGroups: [] });
    expect(await rate('bee hive kit')).toBeCloseTo(2 * ofStarter, 12);
    expect(await rate('hive stand movie')).toBeCloseTo(2 * ofStands, 12);
    const kits = { name: 'Kits', target: '36', adGroupIds: [starter!.id] };
    await put({ campaigns: [ofHives], productGroups: [kits] });
    expect(await rate('bee hive kit')).toBeCloseTo(ofStarter / 2, 12);
    expect(await rate('hive stand movie')).toBeCloseTo(2 * ofStands, 12);

    // Served in Hives (Kits, 36) and in Courses (18): the mean of both rates, weighed by clicks.
    const [both] = await lines({ text: 'bee hive movie' });
    const rows: { name: string; clicks: number }[] = await world
      .db('term_day as d')
      .join('ad_group as g', 'g.ad_group_id', 'd.ad_group_id')
      .where({ 'd.term_id': both!.id })
      .groupBy('g.name')
      .select('g.name', world.db.raw('sum(d.clicks) as clicks'));
    const clicks = (name: string) => Number(rows.find((r) => r.name === name)?.clicks ?? 0);
    const cpc = both!.costMicros! / both!.clicks!;
    const [a, b] = [clicks('Starter'), clicks('Weekend')];
    const mean = (a * (cpc / 36e6) + b * (cpc / 18e6)) / (a + b);
    if (a + b === both!.clicks) expect(both!.evidence!.breakEvenCvr).toBeCloseTo(mean, 12);

    await expect(put({ campaigns: [], productGroups: [kits, { ...kits, name: 'Others' }] })).rejects.toThrow(
      /in Kits and in Others/,
    );
    await undoNewest();
    expect(await rate('bee hive kit')).toBeCloseTo(2 * ofStarter, 12);
  });
});

describe('accounts and people', () => {
  test('an account of one’s own is made in any currency, and its name is taken once', async () => {
    const make = (name: string, currency: string, target: string) =>
      addAccount(world.deps, { name, currency, target, steersBy: 'CPA' });
    expect(await make('Köln Bienen', 'JPY', '1800')).toEqual({ slug: 'koln-bienen' });
    await expect(make('köln bienen', 'EUR', '18')).rejects.toThrow(/already/);
    await expect(make('Other', 'JPY', '18.5')).rejects.toThrow(/such as 1800 JPY/);
    expect(await make('Bienen, Köln!', 'KWD', '1.505')).toEqual({ slug: 'bienen-koln' });
    const { settings: made } = await viewAccount(world.deps, 'bienen-koln', world.personId);
    expect(made).toMatchObject({ currency: 'KWD', targetMicros: 1_505_000, platformAccountId: null });
  });

  test('that it was added stands in its ledger, with who did it, and is undone there', async () => {
    const { slug } = await addAccount(
      world.deps,
      { name: 'Short lived', currency: 'EUR', target: '18', steersBy: 'CPA', person: 'Odile' },
      null,
    );
    const { lines: all } = await viewLedger(world.deps, slug);
    expect(all).toMatchObject([{ what: 'Add the account Short lived', who: 'Odile', canUndo: true }]);
    const undoAs = (person: number) => undoEntry(world.deps, slug, person, all[0]!.id);
    await expect(undoAs(world.personId)).rejects.toThrow(/Maren Oakes has no role.*Odile/);
    const { people } = await viewAccount(world.deps, slug, world.personId);
    await undoAs(people[0]!.id);
    expect((await viewAccount(world.deps, slug, world.personId)).isRetired).toBe(true);
  });

  test('names become short names that can stand in an address', () => {
    expect(shortName('ミツバチ', [])).toBe('account');
    expect(shortName('ミツバチ', ['account'])).toBe('account-2');
    expect(shortName('API', [])).toBe('api-2');
    expect(shortName('  Ça va? ', ['ca-va', 'ca-va-2'])).toBe('ca-va-3');
  });

  test('who is here no longer is back by undo, and somebody always owns the account', async () => {
    const add = (name: string) =>
      addMember(world.deps, world.slug, world.personId, { name, role: 'prepare' });
    const { id } = await add('Ines Vale');
    await expect(add('ines vale')).rejects.toThrow(/already/);
    const give = (person: number, role: MemberRole) =>
      setRole(world.deps, world.slug, world.personId, { person, role });
    const people = async () => (await viewAccount(world.deps, world.slug, world.personId)).people;
    const roleOf = async (person: number) => (await people()).find((one) => one.id === person)!.role;
    await give(id, 'none');
    await expect(add('Ines Vale')).rejects.toThrow(/Give back a role/);
    await undoNewest();
    expect(await roleOf(id)).toBe('prepare');
    const owners = (await people()).filter(({ role }) => role === 'own');
    const [first, second] = owners.map((one) => one.id) as [number, number];
    expect(owners).toHaveLength(2);
    await give(second, 'send');
    await expect(give(first, 'send')).rejects.toThrow(/Nobody would own/);
    const entry = await newest();
    const undoAs = (person: number) => undoEntry(world.deps, world.slug, person, entry.id);
    await expect(undoAs(second)).rejects.toThrow(/Tobias Finch may send.*done by Maren Oakes\./);
    await undoAs(first);
    expect((await people()).filter(({ role }) => role === 'own')).toEqual(owners);
  });

  test('somebody of another account gets a role here under the same name', async () => {
    const { slug } = await addAccount(
      world.deps,
      { name: 'Elsewhere', currency: 'EUR', target: '18', steersBy: 'CPA', person: 'Wren Holloway' },
      null,
    );
    const { people } = await viewAccount(world.deps, slug, world.personId);
    expect(people).toEqual([{ id: expect.any(Number), name: 'Wren Holloway', role: 'own' }]);
    const asked = { name: 'wren holloway', role: 'look' as const };
    expect(await addMember(world.deps, world.slug, world.personId, asked)).toEqual({ id: people[0]!.id });
  });

  test('a retired account comes back by undo', async () => {
    await retireAccount(world.deps, 'bienen-koln', world.personId, true);
    expect((await viewAccount(world.deps, 'bienen-koln', world.personId)).isRetired).toBe(true);
    const [line] = (await viewLedger(world.deps, 'bienen-koln')).lines;
    await undoEntry(world.deps, 'bienen-koln', world.personId, line!.id);
    expect((await viewAccount(world.deps, 'bienen-koln', world.personId)).isRetired).toBe(false);
  });
});

describe('a connection', () => {
  test('is taken away and taken again; what the platform has replaces what files said', async () => {
    await set({ platformAccountId: null });
    expect(await settings()).toMatchObject({ platformAccountId: null });
    await world.load(
      'Campaign,Ad group,List,Keyword,Match type,Status\nHives,,,hand made,negative phrase,live\nHives,,Work,,,live\n',
    );
    const names = async () => (await world.db('negative').orderBy('text').select('text')).map((n) => n.text);
    expect(await names()).toEqual(['hand made', 'salary', 'tattoo']);
    await set({ platformAccountId: 'small' });
    expect(await names()).toEqual(['salary', 'tattoo']);
    expect((await world.db('shared_list').select('name')).map((l) => l.name).sort()).toEqual(['Old', 'Work']);
  });
});

describe('elements that files named first', () => {
  test('are the platform’s of the same name; of two of one name the older', async () => {
    await set({ platformAccountId: null });
    const ids = async (table: string, key: string) =>
      (await world.db(table).where({ account_id: world.accountId }).orderBy(key).select(`${key} as id`)).map(
        (row) => row.id as number,
      );
    const before = [await ids('campaign', 'campaign_id'), await ids('ad_group', 'ad_group_id')];
    // A second campaign of a name that the platform has once.
    await world.db('campaign').insert({ account_id: world.accountId, name: 'Hives', status: 'unknown' });
    await set({ platformAccountId: 'small' });
    expect(await ids('ad_group', 'ad_group_id')).toEqual(before[1]);
    const hives = await world
      .db('campaign')
      .where({ account_id: world.accountId, name: 'Hives' })
      .orderBy('campaign_id')
      .select('platform_id');
    expect(hives.map((c) => c.platform_id)).toEqual(['C1', null]);
    expect(await ids('campaign', 'campaign_id')).toHaveLength(before[0]!.length + 1);
    const strays = await world
      .db('keyword')
      .whereNot({ text_key: '' })
      .where({ platform_id: null })
      .select('text');
    expect(strays).toEqual([]);
  });
});

test('what is open is counted for each screen', async () => {
  const before = await countOpen(world.deps, world.slug);
  await world.bring('Search term,Clicks\nbee,1\n', 'unread.csv');
  const sure = await listTerms(
    world.deps,
    world.slug,
    v.parse(TermsQuerySchema, { view: 'remaining', evidence: 'sure' }),
  );
  expect(await countOpen(world.deps, world.slug)).toEqual({
    ...{ intake: before.intake + 1, sift: sure.total, lists: before.lists },
    ...{ ledger: 0, account: 0 },
    untangle: (await viewConflicts(world.deps, world.slug, { shown: 'open' })).counts.open,
    rules: 0,
  });
  await changeSettings(world.deps, world.slug, world.personId, { target: '' });
  expect((await countOpen(world.deps, world.slug)).account).toBe(1);
});
