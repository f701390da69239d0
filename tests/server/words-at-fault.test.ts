import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { TermsQuerySchema, WordsQuerySchema } from '@/contracts/sift';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { viewPass } from '@/server/use-cases/sift/pass/view-pass';
import { listTerms, listThemes, listWords } from '@/server/use-cases/sift/sift-terms';
import { viewTerm } from '@/server/use-cases/sift/view-term';
import { line, makePassWorld, NEWEST, OLD, REPORT } from '../support/pass-report';
import { makeOwnWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makePassWorld();
});
afterAll(() => world.close());

const pass = () => viewPass(world.deps, world.slug, {});
const wordOf = async (ngram: string) => (await pass()).words.find((word) => word.ngram === ngram);
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
