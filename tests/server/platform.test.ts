import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readReport, type ReportRow } from '@/core';
import type { PlatformChange } from '@/contracts/platform';
import { aSeed, aSeedServedElsewhere } from '../support/seed';
import { makeWorld, seedPlatform, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const post = async (path: string, body: unknown) => {
  const response = await fetch(`${world.platformUrl}/accounts/small/${path}`, {
    method: 'POST',
    body: JSON.stringify(body),
  });
  return { status: response.status, body: (await response.json()) as never };
};
const change = (text: string, over: Partial<PlatformChange> = {}) =>
  ({
    kind: 'add negative',
    text,
    match: 'phrase',
    place: { kind: 'account', id: null },
    ...over,
  }) as PlatformChange;
const send = async (...changes: PlatformChange[]) => {
  const keyed = changes.map((c) => ({ key: randomUUID(), change: c }));
  const { body } = await post('changes', { changes: keyed });
  return (body as { answers: { outcome: string; code?: string; id?: string }[] }).answers;
};

async function report(): Promise<ReportRow[]> {
  const response = await fetch(
    `${world.platformUrl}/accounts/small/reports?kind=search-terms&from=2026-01-01&to=2027-01-01`,
  );
  const rows: ReportRow[] = [];
  const reading = await readReport(new Uint8Array(await response.arrayBuffer()), {
    onRows: (batch) => void rows.push(...batch),
  });
  expect(reading.error).toBeNull();
  return rows;
}

describe('the report', () => {
  test('reaches to two days before the platform’s day, and hides rare queries in one row', async () => {
    const rows = await report();
    expect(
      rows
        .map((r) => r.day)
        .sort()
        .at(-1),
    ).toBe('2026-11-20');
    expect(rows.some((r) => r.term === 'rare thing')).toBe(false);
    expect(rows.some((r) => r.term === '(unreported)' && (r.costMicros ?? 0) > 0)).toBe(true);
    expect(rows.some((r) => r.term === 'bee course salary')).toBe(false); // a hung list stops it
    expect(rows.some((r) => r.term === 'bee course tattoo')).toBe(true); // its list hangs nowhere
  });

  test('is the same for the same seed', async () => {
    const before = await report();
    await seedPlatform(world.platformUrl, aSeed());
    expect(await report()).toEqual(before);
  });

  test('adds conversions to a day for two days more', async () => {
    const of = (rows: ReportRow[], day: string) =>
      rows.filter((r) => r.day === day).reduce((sum, r) => sum + (r.conversions ?? 0), 0);
    const first = of(await report(), '2026-11-20');
    await post('clock', { days: 2 });
    const grown = of(await report(), '2026-11-20');
    await post('clock', { days: 2 });
    expect(grown).toBeGreaterThan(first);
    expect(of(await report(), '2026-11-20')).toBe(grown);
  });
});

describe('changes', () => {
  test('what is paused, and what is bid, acts from the next day on; the day in progress ends as it began', async () => {
    const dayOf = (rows: ReportRow[]) => rows.filter((r) => r.day === '2026-11-22');
    await seedPlatform(world.platformUrl, aSeed());
    await post('clock', { days: 7 });
    const untouched = await report();
    await seedPlatform(world.platformUrl, aSeed());
    await post('changes', {
      changes: [
        { key: 'p1', change: { kind: 'pause keyword', keywordId: 'K2' } },
        { key: 'b1', change: { kind: 'set bid', keywordId: 'K1', bidMicros: 50_000 } },
      ],
    });
    await post('clock', { days: 7 });
    const changed = await report();
    expect(dayOf(changed)).toEqual(dayOf(untouched));
    const later = changed.filter((r) => r.day > '2026-11-22');
    expect(later.some((r) => r.adGroup === 'Stands')).toBe(false);
    const cost = (rows: ReportRow[]) =>
      rows
        .filter((r) => r.day > '2026-11-22' && r.adGroup === 'Starter' && r.term !== 'LK-2041')
        .reduce((sum, r) => sum + (r.costMicros ?? 0), 0);
    expect(cost(changed)).toBeLessThan(cost(untouched) / 20);
    // What nobody touched is served the same.
    const ofCourses = (rows: ReportRow[]) =>
      rows.filter((r) => r.adGroup === 'Weekend').map((r) => ({ ...r, line: 0 }));
    expect(ofCourses(changed)).toEqual(ofCourses(untouched));
  });

  test('a negative stops its query from the next day on; another ad group that matches it serves it', async () => {
    await seedPlatform(world.platformUrl, aSeedServedElsewhere());
    await send(change('movie', { place: { kind: 'campaign', id: 'C1' } }));
    await post('clock', { days: 7 });
    const later = (await report()).filter((r) => r.day > '2026-11-22');
    const movie = later.filter((r) => r.term.includes('movie'));
    expect(new Set(movie.map((r) => r.adGroup))).toEqual(new Set(['Weekend']));
    expect(later.some((r) => r.term === 'bee hive kit')).toBe(true);
  });

  test('the same key again gives the same answer and does nothing; with another body it is a conflict', async () => {
    const batch = { changes: [{ key: randomUUID(), change: change('once') }] };
    const first = await post('changes', batch);
    const again = await post('changes', batch);
    expect((again.body as { answers: unknown }).answers).toEqual(
      (first.body as { answers: unknown }).answers,
    );
    const other = await post('changes', { changes: [{ ...batch.changes[0], change: change('other') }] });
    expect(other.status).toBe(409);
    expect(
      await world.db
        .withSchema('standin')
        .from('negative')
        .whereRaw(`body->>'text' in ('once', 'other')`)
        .count()
        .first(),
    ).toEqual({ count: 1 });
  });

  test('a list made in a batch can be filled and hung in the same batch', async () => {
    const [key, negative, hang] = [randomUUID(), randomUUID(), randomUUID()];
    const { body } = await post('changes', {
      changes: [
        { key, change: { kind: 'make list', name: 'Fresh' } },
        { key: negative, change: change('fresh', { place: { kind: 'list', id: `key:${key}` } }) },
        { key: hang, change: { kind: 'hang list', listId: `key:${key}`, campaignId: 'C1' } },
      ],
    });
    expect((body as { answers: { outcome: string }[] }).answers.map((a) => a.outcome)).toEqual([
      'applied',
      'applied',
      'applied',
    ]);
  });

  test('what depends on a refused change is refused, the rest goes on', async () => {
    const key = randomUUID();
    const { body } = await post('changes', {
      changes: [
        { key, change: { kind: 'make list', name: 'Work' } },
        { key: randomUUID(), change: change('orphan', { place: { kind: 'list', id: `key:${key}` } }) },
        { key: randomUUID(), change: change('fine') },
      ],
    });
    expect(
      (body as { answers: { outcome: string; code?: string }[] }).answers.map((a) => a.code ?? a.outcome),
    ).toEqual(['name taken', 'no such place', 'applied']);
  });

  test.each<[string, PlatformChange, string]>([
    ['no word', change('??'), 'no word'],
    ['too many words', change('a b c d e f g h i j k l m'), 'too many words'],
    ['no such campaign', { kind: 'hang list', listId: 'S1', campaignId: 'C9' }, 'no such campaign'],
    ['a list that hangs is not removed', { kind: 'remove list', listId: 'S1' }, 'list hangs'],
    ['a list with entries is not removed', { kind: 'remove list', listId: 'S2' }, 'list not empty'],
    ['what is not there is not removed', change('never there', { kind: 'remove negative' }), 'not there'],
  ])('%s', async (_, wanted, code) => {
    const [answer] = await send(wanted);
    expect(answer).toMatchObject({ outcome: 'refused', code });
  });

  test('the account takes 1,200 negatives and no more', async () => {
    await seedPlatform(world.platformUrl, aSeed());
    const many = Array.from({ length: 1201 }, (_, i) => change(`word${i}`));
    const answers = [];
    for (let at = 0; at < many.length; at += 500) answers.push(...(await send(...many.slice(at, at + 500))));
    expect(answers.filter((a) => a.outcome === 'applied')).toHaveLength(1200);
    expect(answers.at(-1)).toMatchObject({ code: 'too many negatives' });
  });

  test('the structure since a revision names what changed and what went', async () => {
    await seedPlatform(world.platformUrl, aSeed());
    const structure = async (since: number) =>
      (await (await fetch(`${world.platformUrl}/accounts/small/structure?since=${since}`)).json()) as {
        revision: number;
        negatives: { id: string; status: string }[];
        campaigns: unknown[];
      };
    const { revision } = await structure(0);
    await send(
      change('salary', { kind: 'remove negative', match: 'broad', place: { kind: 'list', id: 'S1' } }),
    );
    const since = await structure(revision);
    expect(since.negatives).toEqual([expect.objectContaining({ id: 'E1', status: 'removed' })]);
    expect(since.campaigns).toEqual([]);
  });
});

test('bodies that are not understood are refused with the field', async () => {
  expect(await post('changes', { changes: [{ key: 'k', change: { kind: 'explode' } }] })).toMatchObject({
    status: 400,
  });
  expect(await post('clock', { days: -1 })).toMatchObject({
    status: 400,
    body: { error: expect.stringContaining('days') },
  });
});
