import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { MatchType } from '@/core';
import {
  MadeSeatsSchema,
  PlanRequestSchema,
  PlanViewSchema,
  PromotionsQuerySchema,
  PromotionsViewSchema,
  SeatSaidSchema,
} from '@/contracts/promotion';
import { setFields } from '@/server/use-cases/account/change-settings';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { draftPromotions, planPromotions } from '@/server/use-cases/promotion/plan-promotions';
import { writePromotionSheet } from '@/server/use-cases/promotion/promotion-sheet';
import { makeSeats, setSeat } from '@/server/use-cases/promotion/seats';
import { viewPromotions } from '@/server/use-cases/promotion/view-promotions';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { undoSent } from '@/server/use-cases/ledger/undo-sent';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { leaveKnot, takeKnotBack } from '@/server/use-cases/untangle/knots/leave-knot';
import { viewConflicts } from '@/server/use-cases/untangle/view-conflicts';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  const { structure, queries } = aSeed();
  const adGroup = structure.adGroups[0]!;
  const keyword = structure.keywords[0]!;
  world = await makeWorld(
    aSeed({
      structure: {
        ...structure,
        adGroups: [
          ...structure.adGroups,
          { ...adGroup, id: 'G4', name: 'Hives exact' },
          { ...adGroup, id: 'G5', name: 'Hives phrase' },
        ],
        keywords: [...structure.keywords, { ...keyword, id: 'K8', text: 'bee hive own', match: 'exact' }],
      },
      queries: [
        ...queries,
        aQuery('blue bee hive kit', { daily: 40, cvr: 0.3 }),
        aQuery('bee hive own', { daily: 30, cvr: 0.3 }),
        aQuery('bee hive kit cheap', { daily: 60 }),
        aQuery('bee course book', { daily: 60, cvr: 0.02, at: 'G3', cpcMicros: 900_000 }),
      ],
    }),
  );
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;

async function view(asked: v.InferInput<typeof PromotionsQuerySchema> = {}) {
  const answer = await viewPromotions(...at(), v.parse(PromotionsQuerySchema, { days: '7', ...asked }));
  expect(v.parse(PromotionsViewSchema, answer)).toEqual(answer);
  return answer;
}
type Asked = Partial<v.InferInput<typeof PlanRequestSchema>>;
const request = (term: string, group: string, more: Asked = {}) =>
  v.parse(PlanRequestSchema, { terms: [{ term, group }], days: '7', ...more });
async function plan(term: string, group: string, more: Asked = {}) {
  const answer = await planPromotions(...at(), request(term, group, more));
  expect(v.parse(PlanViewSchema, answer)).toEqual(answer);
  return answer;
}
const groupNamed = async (name: string) => (await view()).groups.find((one) => one.name === name)!.key;
const told = ({ parts }: Awaited<ReturnType<typeof plan>>) =>
  parts.map(({ kind, match, adGroup, state }) => `${kind} ${match} ${adGroup}: ${state}`);
async function seat(group: string, match: MatchType, adGroup: string | null, campaign = 'Hives') {
  const answer = await setSeat(...by(), {
    group,
    match,
    seat: adGroup === null ? null : { campaign, adGroup },
  });
  expect(v.parse(SeatSaidSchema, answer)).toEqual(answer);
  return answer;
}

describe('terms to promote', () => {
  test('converted, and are no exact keyword of their group; a product code is none', async () => {
    const { lines, counts, total, groups } = await view();
    expect(lines.map(({ term }) => term)).toEqual(
      expect.arrayContaining(['bee hive kit', 'blue bee hive kit']),
    );
    expect(lines.map(({ term }) => term)).not.toContain('bee hive movie');
    expect(counts).toEqual({ open: lines.length, left: 0 });
    expect(total).toBe(lines.length);
    const values = lines.map(({ valueMicros }) => valueMicros!);
    expect(values).toEqual(values.toSorted((a, b) => b - a));
    const kit = lines[0]!;
    expect(kit).toMatchObject({ term: 'bee hive kit', target: 18_000_000, isExact: false, left: null });
    expect(kit.reaches).toBeGreaterThan(0.95);
    expect(kit.servedIn.first[0]).toBe('Hives · Starter');
    // Ad groups that are in no product group stand together by campaign; their names tell the seats.
    expect(groups.map(({ name, isOwn }) => [name, isOwn])).toEqual([
      ['Hives', false],
      ['Courses', false],
    ]);
    expect(groups[0]!.seats).toMatchObject({
      exact: { adGroup: 'Hives exact', isChosen: false, state: 'serves' },
      phrase: { adGroup: 'Hives phrase' },
      // Its name does not say so, and a campaign's ad groups may sell anything.
      broad: null,
    });
  });

  test('are none that is an exact keyword elsewhere in the group: a second one would compete with it', async () => {
    const { lines, groups } = await view();
    const [group] = groups;
    expect(lines.map(({ term }) => term)).not.toContain('free hive');
    expect(lines.every(({ isExact }) => !isExact)).toBe(true);
    const { content } = await writePromotionSheet(
      ...at(),
      'csv',
      v.parse(PromotionsQuerySchema, { days: '7', group: group!.key }),
    );
    const own = String(content)
      .split('\r\n')
      .find((row) => row.startsWith('bee hive own'));
    expect(own).toMatch(/,yes,0,0$/);
    expect(lines.map(({ term }) => term)).not.toContain('bee hive own');
  });

  test('are asked for by conversions, by reach, by campaign and by group', async () => {
    const all = await view();
    expect((await view({ conversions: '100000' })).lines).toEqual([]);
    const within = await view({ reach: 'within' });
    const over = await view({ reach: 'over' });
    expect(within.lines.every((one) => one.costMicros! / one.conversions! <= 18_000_000)).toBe(true);
    expect(over.lines.every((one) => one.costMicros! / one.conversions! > 18_000_000)).toBe(true);
    expect(within.total + over.total).toBe(all.total);
    const courses = all.campaigns.find(({ name }) => name === 'Courses');
    const ofCourses = await view({ campaign: courses!.id });
    expect(ofCourses.lines.every(({ servedIn }) => servedIn.first.some((s) => s.startsWith('Courses')))).toBe(
      true,
    );
    const group = await groupNamed('Hives');
    expect((await view({ group })).lines.every((one) => one.group === group)).toBe(true);
    expect((await view({ searchesFrom: '1' })).lines).toEqual([]);
  });

  test('are saved as a sheet', async () => {
    const { content } = await writePromotionSheet(
      ...at(),
      'csv',
      v.parse(PromotionsQuerySchema, { days: '7' }),
    );
    const rows = String(content).trim().split('\r\n');
    expect(rows[0]).toContain('search term');
    expect(rows.length).toBeGreaterThanOrEqual(1 + (await view()).total);
    const book = await writePromotionSheet(...at(), 'xlsx', v.parse(PromotionsQuerySchema, { days: '7' }));
    expect(book.name).toBe('small converting terms.xlsx');
  });

  test('are left until they bring another conversion, and taken up again', async () => {
    const group = await groupNamed('Hives');
    const knot = { kind: 'promotion' as const, key: `${group} → bee hive kit` };
    await leaveKnot(...by(), { ...knot, days: 7, why: 'not for this', until: null });
    expect((await view()).lines.map(({ term }) => term)).not.toContain('bee hive kit');
    expect((await view({ pile: 'left' })).lines[0]).toMatchObject({ left: { why: 'not for this' } });
    await world.db('left_knot').where({ kind: 'promotion' }).update({ state: '0' });
    expect((await view()).lines.map(({ term }) => term)).toContain('bee hive kit');
    await takeKnotBack(...by(), knot);
  });
});

describe('seats', () => {
  test('are chosen; a campaign becomes a product group by it, and the ledger takes it back', async () => {
    const group = await groupNamed('Hives');
    const first = await seat(group, 'broad', 'Starter');
    expect([first.isMade, (await view()).groups.map(({ isOwn }) => isOwn)]).toEqual([true, [true, false]]);
    // Taken back, it is a campaign again.
    await setSeat(...by(), { group: first.group, match: 'broad', seat: null, unmakes: true });
    expect((await view()).groups.map(({ isOwn }) => isOwn)).toEqual([false, false]);
    const { said, was, group: own } = await seat(group, 'broad', 'Starter');
    expect([said, was]).toEqual(['The broad seat of Hives is Hives · Starter', null]);
    expect((await view()).groups[0]).toMatchObject({
      ...{ key: own, isOwn: true, adGroups: 4 },
      seats: { broad: { adGroup: 'Starter', isChosen: true } },
    });
    expect((await seat(own, 'broad', 'Stands')).was).toEqual({ campaign: 'Hives', adGroup: 'Starter' });
    const last = await world.db('ledger_entry').max<{ id: number }[]>('ledger_entry_id as id');
    await undoEntry(...by(), last[0]!.id);
    expect((await view()).groups[0]!.seats.broad).toMatchObject({ adGroup: 'Starter' });
  });

  test('are ad groups that are there, and in no other product group', async () => {
    const own = await groupNamed('Hives');
    await expect(seat(own, 'exact', 'Nowhere')).rejects.toThrow('There is no ad group Nowhere in Hives.');
    await expect(seat('group Gone', 'exact', 'Starter')).rejects.toThrow('not there any more');
    await expect(seat(await groupNamed('Courses'), 'exact', 'Starter', 'Hives')).rejects.toThrow(
      'Starter is in the product group Hives',
    );
  });

  test('are made in the tray: their keywords can be planned, and nothing is left to them before they serve', async () => {
    const group = await groupNamed('Courses');
    const asked = { group, matches: ['exact' as const], campaign: 'Courses seats', budgetMicros: null };
    await expect(makeSeats(...by(), asked)).rejects.toThrow('give its budget');
    const made = await makeSeats(...by(), { ...asked, campaign: 'Courses' });
    expect(v.parse(MadeSeatsSchema, made)).toEqual(made);
    expect(made.outcomes.map(({ outcome }) => outcome)).toEqual(['drafted']);
    const courses = (await view()).groups.find(({ key }) => key === made.group)!;
    expect(courses.seats.exact).toMatchObject({
      adGroup: 'Courses exact',
      isChosen: true,
      state: 'in the tray',
    });
    const of = await plan('bee course book', made.group);
    expect(told(of)).toEqual([
      'keyword exact Courses exact: new',
      'keyword broad Weekend: new',
      'negative exact Weekend: in the way',
    ]);
    expect(of.obstacles.first[0]).toContain('the exact seat serves nothing so far');
    expect(of.missing).toEqual([{ group: 'Courses', matches: ['phrase'] }]);
    const outcomes = await draftPromotions(...by(), request('bee course book', made.group));
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['drafted', 'drafted']);
    // The keywords fall with the ad group that holds them.
    const { changes } = await viewTray(...at());
    await removeFromTray(...at(), [changes[0]!.id]);
    expect((await viewTray(...at())).changes.map(({ said }) => said)).toEqual([
      'Add keyword “bee course book” (broad) to Courses · Weekend, bid 0.19',
    ]);
    await removeFromTray(
      ...at(),
      (await viewTray(...at())).changes.map(({ id }) => id),
    );
    const after = (await view()).groups.find(({ key }) => key === made.group)!;
    expect([after.seats.exact, after.gone]).toEqual([
      null,
      [{ match: 'exact', campaign: 'Courses', adGroup: 'Courses exact' }],
    ]);
    await seat(made.group, 'exact', null);
  });
});

describe('a plan', () => {
  test('has keywords and negatives, an opening bid with its reckoning, and what each seat would get', async () => {
    const group = await groupNamed('Hives');
    const of = await plan('bee hive kit', group);
    expect(told(of)).toEqual([
      'keyword exact Hives exact: new',
      'keyword phrase Hives phrase: new',
      'keyword broad Starter: new',
      'negative exact Hives phrase: new',
      'negative phrase Starter: new',
    ]);
    expect([of.terms, of.keywords, of.negatives]).toEqual([1, 3, 2]);
    const { bid } = of;
    expect(bid!.bidMicros).toBe(Math.floor(bid!.cpcMicros / 10_000) * 10_000);
    expect(of.gets.map(({ match, adGroup, weight }) => [match, adGroup, weight.terms])).toEqual([
      ['exact', 'Hives exact', 1],
      ['phrase', 'Hives phrase', 2],
    ]);
    const [left] = of.leaves;
    expect(left!.adGroup).toBe('Starter');
    expect(left!.weight.clicks).toBe(of.gets.reduce((sum, one) => sum + one.weight.clicks!, 0));
    expect(of.nowhere.terms).toBe(0);
  });

  test('leaves out what is taken out, and what stands on it', async () => {
    const group = await groupNamed('Hives');
    expect(told(await plan('bee hive kit', group, { without: ['keyword phrase'] }))).toEqual([
      ...['keyword exact Hives exact: new', 'keyword broad Starter: new', 'negative exact Starter: new'],
      'keyword phrase Hives phrase: out',
    ]);
    const without = await plan('bee hive kit', group, { without: ['negative broad'], bidMicros: 990_000 });
    expect(told(without).at(-1)).toBe('negative phrase Starter: out');
    expect([without.bid!.bidMicros, without.negatives, without.gets]).toEqual([990_000, 1, []]);
  });

  test('stops the term at a source that misses by more than is tolerated', async () => {
    const group = await groupNamed('Hives');
    await seat(group, 'broad', 'Stands');
    const sources = async () =>
      (await plan('bee hive kit', group)).parts.filter(({ at: where }) => where === 'source');
    expect(await sources()).toEqual([]); // Starter is within the target
    expect((await plan('bee hive kit', group)).stays.map(({ adGroup }) => adGroup)).toEqual(['Starter']);
    await setFields(...by(), { targetMicros: 1_000_000 });
    const [source] = await sources();
    expect(source).toMatchObject({ kind: 'negative', match: 'exact', adGroup: 'Starter', state: 'new' });
    expect((await plan('bee hive kit', group)).stays).toEqual([]);
    await setFields(...by(), { promotionTolerance: 10 });
    expect(await sources()).toEqual([]);
    await setFields(...by(), { promotionTolerance: 0.01, targetMicros: 18_000_000 });
    await seat(group, 'broad', 'Starter');
  });

  test('of a term that did not convert there is refused', async () => {
    await expect(plan('bee hive movie', await groupNamed('Hives'))).rejects.toThrow('did not convert there');
  });
});

describe('a plan in the tray', () => {
  test('hurts no protected term that its seat serves; without the keyword its negatives are held back', async () => {
    const group = await groupNamed('Hives');
    const outcomes = await draftPromotions(...by(), request('bee hive kit', group));
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(Array<string>(5).fill('drafted'));
    const { changes } = await viewTray(...at());
    expect(changes.map(({ heldBackBy }) => heldBackBy.count)).toEqual([0, 0, 0, 0, 0]);
    expect(changes[4]!.said).toBe(
      'Stop “bee hive kit” (phrase) in ad group Starter, for Hives exact to serve it',
    );
    // What was promoted lacks nothing any more.
    expect((await view()).lines.map(({ term }) => term)).not.toContain('bee hive kit');
    await expect(draftPromotions(...by(), request('bee hive kit', group))).rejects.toThrow(
      'Nothing is to be made',
    );
    // The negatives fall with the keyword for which they make room.
    await removeFromTray(...at(), [changes[0]!.id]);
    expect((await viewTray(...at())).changes.map(({ said }) => said)).toHaveLength(2);
    const alone = changes[3]!.change;
    expect((await draftChanges(...by(), [{ change: alone }]))[0]!.outcome).toBe('held back');
    await removeFromTray(
      ...at(),
      (await viewTray(...at())).changes.map(({ id }) => id),
    );
  });

  test('runs a keyword again that is paused in its seat, and its negatives are not held back', async () => {
    const group = await groupNamed('Hives');
    const outcomes = await draftPromotions(...by(), request('bee hive kit', group));
    await sendTray(...by());
    await world.work();
    const sent = await world
      .db('change')
      .where('why', 'like', 'promoted%')
      .orderBy('change_id')
      .select('change_id as id');
    const exact = await world
      .db('keyword')
      .where({ text: 'bee hive kit', match: 'exact' })
      .first('keyword_id as id');
    await draftChanges(...by(), [{ change: { kind: 'pause keyword', keywordId: String(exact.id) } }]);
    for (const { id } of sent.slice(3)) await undoSent(...by(), id);
    await sendTray(...by());
    await world.work();
    expect(told(await plan('bee hive kit', group))[0]).toBe('keyword exact Hives exact: runs again');
    const again = await draftPromotions(...by(), request('bee hive kit', group));
    expect(again.map(({ outcome }) => outcome)).toEqual(['drafted', 'drafted', 'drafted']);
    await sendTray(...by());
    await world.work();
    expect(outcomes).toHaveLength(5);
    const all = await world
      .db('change')
      .whereNull('undoes')
      .where('why', 'like', 'promoted%')
      .orderBy('change_id')
      .select('change_id as id', 'kind');
    for (const { id } of all.filter(({ kind }) => kind === 'add negative').slice(-2))
      await undoSent(...by(), id);
    for (const { id } of sent.slice(0, 3)) await undoSent(...by(), id);
    await sendTray(...by());
    await world.work();
    await world.db('change').where('why', 'like', 'promoted%').update({ why: 'tried' });
  });

  test('is held back where something stops the term in its seat', async () => {
    const group = await groupNamed('Hives');
    await draftPromotions(...by(), request('bee hive kit', group));
    const { changes } = await viewTray(...at());
    const seat = await world.db('ad_group').where({ name: 'Hives exact' }).first('ad_group_id as id');
    const place = { kind: 'adGroup' as const, id: String(seat.id) };
    const [stopped] = await draftChanges(...by(), [
      {
        change: { kind: 'add negative', text: 'kit', match: 'broad', place },
        forcedBecause: 'to see what it does',
      },
    ]);
    expect(stopped!.outcome).toBe('drafted');
    await removeFromTray(...at(), [changes[4]!.id]);
    const held = await draftChanges(...by(), [{ change: changes[4]!.change }]);
    expect(held[0]).toMatchObject({ outcome: 'held back', terms: { count: 1, first: ['bee hive kit'] } });
    await removeFromTray(
      ...at(),
      (await viewTray(...at())).changes.map(({ id }) => id),
    );
  });

  test('is sent, read back, and served by its seat; undone it leaves what was', async () => {
    const group = await groupNamed('Hives');
    const before = told(await plan('bee hive kit', group));
    await draftPromotions(...by(), request('bee hive kit', group));
    await sendTray(...by());
    await world.work();
    const states = await world.db('change').where('why', 'like', 'promoted%').select('state');
    expect(states.map(({ state }) => state)).toEqual(Array<string>(5).fill('there'));
    const of = await plan('bee hive kit', group);
    expect(told(of).every((line) => line.endsWith('there'))).toBe(true);
    expect((await view()).lines.map(({ term }) => term)).not.toContain('bee hive kit');
    // What routes is meant so: it works against no keyword, and hurts no protected term.
    const conflicts = await viewConflicts(...at(), { shown: 'meant', days: 7 });
    expect(conflicts.counts).toMatchObject({ open: 0, meant: conflicts.lines.length });
    expect(conflicts.lines.map(({ severity, seat }) => [severity, seat?.adGroup])).toContainEqual([
      'protected',
      'Hives exact',
    ]);
    const sent = await world
      .db('change')
      .where('why', 'like', 'promoted%')
      .orderBy('change_id')
      .select('change_id as id');
    for (const { id } of sent.toReversed()) expect((await undoSent(...by(), id)).outcome).toBe('drafted');
    await sendTray(...by());
    await world.work();
    expect(told(await plan('bee hive kit', group))).toEqual(before);
  });
});
