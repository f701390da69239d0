import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { shiftDay, stops } from '@/core';
import { TermsQuerySchema, WordsQuerySchema, type TermLine } from '@/contracts/sift';
import { describeAccount } from '@/server/use-cases/account/describe-account';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { offerVariants } from '@/server/use-cases/sift/offer-variants';
import { listTerms, listWords } from '@/server/use-cases/sift/sift-terms';
import { weighChoice } from '@/server/use-cases/sift/weigh-choice';
import { openWorkbench, requireAccount } from '@/server/use-cases/open-workbench';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const terms = (query: Record<string, string> = {}) =>
  listTerms(world.deps, world.slug, v.parse(TermsQuerySchema, query));
const words = (query: Record<string, string> = {}) =>
  listWords(world.deps, world.slug, v.parse(WordsQuerySchema, query));
const lineOf = async (raw: string): Promise<TermLine> => (await terms()).lines.find((l) => l.raw === raw)!;

describe('where a word is proposed', () => {
  test('is the list that hangs there and holds its kin, else where kin stand already; never for a whole term', async () => {
    const line = await lineOf('bee hive movie');
    const weigh = (positions: number[]) => weighChoice(world.deps, world.slug, { term: line.id, positions });
    expect((await weigh([2])).proposed).toBeNull();
    const kin = { kind: 'add negative' as const, text: 'movies', match: 'phrase' as const };
    await draftChanges(world.deps, world.slug, world.personId, [
      { change: { ...kin, place: { kind: 'account', id: null } } },
    ]);
    expect((await weigh([2])).proposed).toEqual({
      ...{ place: { kind: 'account', id: null }, because: '“movies” stands there' },
    });
    expect((await weigh([1])).proposed).toBeNull(); // a word of live keywords says nothing
    expect((await weigh([])).proposed).toBeNull();
    const { drafted } = await openWorkbench(world.deps, await requireAccount(world.deps, world.slug));
    await removeFromTray(
      world.deps,
      world.slug,
      drafted.map(({ id }) => id),
    );
  });
});

describe('the terms', () => {
  test('come with spend without return first, codes among them, the unreported beside', async () => {
    const page = await terms();
    expect(page.lines.map((l) => l.raw).sort()).toEqual([
      'LK-2041',
      'bee course tattoo',
      'bee hive kit',
      'bee hive movie',
      'free bee hive plans',
      'hive stand movie',
    ]);
    expect(page.lines.at(-1)!.raw).toBe('bee hive kit');
    const costs = page.lines.slice(0, -1).map((l) => l.costMicros!);
    expect(costs).toEqual([...costs].sort((a, b) => b - a));
    expect(page.unreportedMicros).toBeGreaterThan(0);
    expect(page.lines.find((l) => l.raw === 'LK-2041')).toMatchObject({ kind: 'code', words: [] });
    expect(page.lines.find((l) => l.raw === 'bee hive kit')).toMatchObject({
      isProtected: true,
      servedBy: { keyword: 'bee hive', match: 'broad' },
    });
  });

  test('of any days, beside any others: all of a term in both, and the sums of both', async () => {
    const { window } = await describeAccount(world.deps, world.slug);
    const middle = shiftDay(window!.from, Math.floor(window!.days / 2));
    const late = `${shiftDay(middle, 1)}~${window!.to}`;
    const early = `${window!.from}~${middle}`;
    const [whole, page, other] = [
      await terms(),
      await terms({ days: late, beside: early }),
      await terms({ days: early }),
    ];
    expect(page.lines.length).toBeGreaterThan(2);
    for (const { raw, costMicros, beside } of page.lines) {
      const then = other.lines.find((line) => line.raw === raw)?.costMicros ?? 0;
      expect(beside).toMatchObject({ now: { costMicros }, then: { costMicros: then } });
      expect(costMicros! + then).toBe(whole.lines.find((line) => line.raw === raw)!.costMicros);
    }
    expect(page.beside!.now.costMicros).toBe(page.sums.costMicros);
    expect((await terms({ days: late })).beside).toBeNull();
  });

  test('page by page they are the same as in one', async () => {
    const whole = (await terms({ sort: 'cost' })).lines.map((l) => l.id);
    const first = await terms({ sort: 'cost', most: '4' });
    const rest = await terms({ sort: 'cost', most: '4', offset: '4' });
    expect([...first.lines, ...rest.lines].map((l) => l.id)).toEqual(whole);
  });

  test.each([
    [
      { returns: 'none' },
      ['LK-2041', 'bee course tattoo', 'bee hive movie', 'free bee hive plans', 'hive stand movie'],
    ],
    [{ holding: 'hive movie' }, ['bee hive movie']],
    [{ text: 'MOV' }, ['bee hive movie', 'hive stand movie']],
    [{ clicks: '100000' }, []],
  ])('filters %j', async (query, expected) => {
    expect((await terms(query as Record<string, string>)).lines.map((l) => l.raw).sort()).toEqual(expected);
  });

  test('leave Remaining when the draft stops them, and come back when it is taken out', async () => {
    const [outcome] = await draftChanges(world.deps, world.slug, world.personId, [
      {
        change: {
          kind: 'add negative',
          text: 'movie',
          match: 'phrase',
          place: { kind: 'account', id: null },
        },
      },
    ]);
    const drafted = await terms();
    expect(drafted.counts).toEqual({ remaining: 4, stopped: 2, kept: 0, aside: 0, already: 0 });
    expect((await terms({ view: 'stopped' })).lines.map((l) => l.raw).sort()).toEqual([
      'bee hive movie',
      'hive stand movie',
    ]);
    if (outcome!.outcome === 'drafted') await removeFromTray(world.deps, world.slug, [outcome!.changeId]);
    expect((await terms()).counts.remaining).toBe(6);
  });
});

describe('the words', () => {
  test('carry the sums of their terms, codes left out', async () => {
    const { lines } = await words();
    const movie = lines.find((l) => l.ngram === 'movie')!;
    const own = (await terms()).lines.filter((l) => l.words.includes('movie'));
    expect(movie).toMatchObject({ terms: 2, costMicros: own.reduce((sum, l) => sum + l.costMicros!, 0) });
    expect(lines.some((l) => l.ngram === 'lk')).toBe(false);
    expect((await words({ n: '2' })).lines.map((l) => l.ngram)).toContain('bee hive');
  });
});

describe('what is in hand', () => {
  test('weighs each match type at each place as the readable rule would', async () => {
    const line = await lineOf('bee hive movie');
    const answer = await weighChoice(world.deps, world.slug, { term: line.id, positions: [1, 2] });
    const all = (await terms()).lines;
    for (const choice of answer.choices) {
      const atAccount = choice.places.find((p) => p.place.kind === 'account')!;
      const expected = all.filter(
        (l) => l.kind === 'query' && stops({ text: choice.text, match: choice.match }, l.raw),
      );
      expect(atAccount.weight.terms).toBe(expected.length);
      expect(atAccount.weight.costMicros).toBe(expected.reduce((sum, l) => sum + l.costMicros!, 0));
    }
    expect(answer.choices.map((c) => [c.match, c.text])).toEqual([
      ['phrase', 'hive movie'],
      ['broad', 'hive movie'],
      ['exact', 'bee hive movie'],
    ]);
  });

  test('a list says where it hangs, and one that hangs nowhere stops nothing', async () => {
    const line = await lineOf('bee course tattoo');
    const answer = await weighChoice(world.deps, world.slug, { term: line.id, positions: [2] });
    const places = answer.choices[0]!.places;
    expect(places.find((p) => p.name === 'Work')).toMatchObject({
      note: 'hangs on 1 campaign: Courses',
      weight: { terms: 1 },
      isSafe: true,
    });
    expect(places.find((p) => p.name === 'Old')).toMatchObject({
      note: 'hangs nowhere, so it stops nothing',
      weight: { terms: 0 },
      isThere: true,
      isSafe: false,
    });
    expect(answer.smallestSafe).toEqual({
      match: 'phrase',
      place: { kind: 'adGroup', id: expect.any(String) },
    });
  });

  test('names protected terms and live keywords, and is not safe then', async () => {
    const line = await lineOf('free bee hive plans');
    const answer = await weighChoice(world.deps, world.slug, { term: line.id, positions: [2] });
    const atAccount = answer.choices[0]!.places.find((p) => p.place.kind === 'account')!;
    expect(atAccount).toMatchObject({ protectedTerms: { count: 1, first: ['bee hive kit'] }, isSafe: false });
    const named = atAccount.touched.flatMap(({ severity, first }) => first.map((k) => [k.text, severity]));
    expect(named).toContainEqual(['free hive', 'shut out']);
    expect(named).toContainEqual(['bee hive', 'narrowed']);
  });

  test('words that stand apart can not be a phrase, and a code can not be a negative', async () => {
    const line = await lineOf('free bee hive plans');
    const answer = await weighChoice(world.deps, world.slug, { term: line.id, positions: [0, 3] });
    expect(answer.choices[0]).toMatchObject({
      match: 'phrase',
      refusal: 'these words do not stand together',
      places: [],
    });
    const code = await lineOf('LK-2041');
    expect((await weighChoice(world.deps, world.slug, { term: code.id, positions: [] })).choices).toEqual([]);
  });
});

describe('evidence', () => {
  test('is read against the whole account, and undefined without clicks or target', async () => {
    const line = await lineOf('bee hive movie');
    expect(line.evidence!.misses).toBeGreaterThan(0);
    expect(line.evidence!.misses).toBeLessThanOrEqual(1);
    expect(line.evidence!.breakEvenCvr).toBeCloseTo(line.costMicros! / line.clicks! / 18_000_000, 6);
    await world.db('account').update({ target_micros: null });
    expect((await lineOf('bee hive movie')).evidence).toBeNull();
    await world.db('account').update({ target_micros: 18_000_000 });
  });
});

describe('variants', () => {
  test('that occur are offered with what they would stop beyond the negative, at its place', async () => {
    const day = (await world.db('term_day').max('day as day').first())!.day as string;
    const rows = ['bee movies', 'hive movei poster', 'movie hive'].map(
      (term, i) => `${term},Hives,Starter,bee hive,broad,${day},9,3,${i + 1}.00,0`,
    );
    await world.load(
      `Search term,Campaign,Ad group,Keyword,Match type,Day,Impr.,Clicks,Cost,Conversions\n${rows.join('\n')}`,
    );
    await world.db('account').update({ lag_days: 0, data_version: world.db.raw('data_version + 1') });
    const { campaign_id } = await world.db('campaign').where({ name: 'Hives' }).first();
    const place = { kind: 'campaign' as const, id: String(campaign_id) };
    const asked = { negative: { text: 'movie', match: 'broad' as const }, place };
    const { offers } = await offerVariants(world.deps, world.slug, asked);
    expect(offers.map((o) => [o.text, o.how, o.weight.terms, o.weight.costMicros])).toEqual([
      ['movei', 'misspelt', 1, 2_000_000],
      ['movies', 'plural', 1, 1_000_000],
    ]);
    const courses = await world.db('campaign').where({ name: 'Courses' }).first();
    const elsewhere = { ...asked, place: { ...place, id: String(courses.campaign_id) } };
    expect((await offerVariants(world.deps, world.slug, elsewhere)).offers).toEqual([]);
  });
});
