import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { USUAL_LIMITS, type Change } from '@/core';
import { FiltersSchema, TermsQuerySchema, WordsQuerySchema, type TermsPage } from '@/contracts/sift';
import { viewIntake } from '@/server/use-cases/intake/take-in';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftEdit, previewEdit } from '@/server/use-cases/lists/edit-list';
import { viewEntries } from '@/server/use-cases/lists/view-entries';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import { draftBatch, setVerdicts, weighBatch } from '@/server/use-cases/sift/batch';
import { listTerms, listWords } from '@/server/use-cases/sift/sift-terms';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { traySheet, viewTray } from '@/server/use-cases/tray/view-tray';
import { makeOwnWorld, type World } from '../support/world';

/** What holds for six terms must hold for many thousands: no row lost, no figure rounded, no query a row. */
const TERMS = 12_000;
const DAYS = ['2026-11-18', '2026-11-19', '2026-11-20'];
const COLOURS = 40;
const CAMPAIGNS = ['Hives', 'Smokers', 'Honey'];

/** One term of the made report: its figures on each day can be told from its number. */
const termOf = (i: number) => ({
  text: `bee colour${i % COLOURS} tool${i % 7} n${i}`,
  campaign: CAMPAIGNS[i % CAMPAIGNS.length]!,
  clicks: 1 + (i % 5),
  cents: 7 + (i % 90),
  /** every tenth term sold, and none of the first colour did */
  conversions: i % 10 === 9 ? 1 : 0,
});
const ALL = Array.from({ length: TERMS }, (_, i) => termOf(i));
const UNSOLD = ALL.filter((t) => t.conversions === 0);
const sum = (numbers: number[]) => numbers.reduce((all, n) => all + n, 0);
const microsOf = (terms: typeof ALL) => sum(terms.map((t) => t.cents)) * DAYS.length * 10_000;

let world: World;
beforeAll(async () => {
  world = await makeOwnWorld({ name: 'Large', currency: 'EUR', steersBy: 'CPA', target: '18' });
  const rows = DAYS.flatMap((day) =>
    ALL.map(
      (t) =>
        `${day},${t.campaign},All,bee,${t.text},${t.clicks},${(t.cents / 100).toFixed(2)},${t.conversions}`,
    ),
  );
  // A later day of its own, since the newest days wait for their conversions.
  rows.push('2026-11-23,Hives,All,bee,quiet,0,0,0');
  await world.load(['Day,Campaign,Ad group,Keyword,Search term,Clicks,Cost,Conversions', ...rows].join('\n'));
}, 120_000);
afterAll(() => world.close());

const terms = (query: Record<string, string> = {}) =>
  listTerms(world.deps, world.slug, v.parse(TermsQuerySchema, query));
const draft = (changes: Change[]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change })),
  );
const tray = () => viewTray(world.deps, world.slug);
const emptyTray = async () => {
  const ids = (await tray()).changes.map((c) => c.id);
  if (ids.length > 0) await removeFromTray(world.deps, world.slug, ids);
};
const exact = (from: number, to: number): Change[] =>
  UNSOLD.slice(from, to).map(({ text }) => ({
    ...{ kind: 'add negative', text, match: 'exact' },
    place: { kind: 'account', id: null },
  }));

/** How many statements the database is asked while something is done. */
async function countQueries(work: () => Promise<unknown>): Promise<number> {
  let asked = 0;
  const onQuery = () => (asked += 1);
  world.db.on('query', onQuery);
  try {
    await work();
  } finally {
    world.db.removeListener('query', onQuery);
  }
  return asked;
}

/** All lines of a view, page by page. */
async function allLines(query: Record<string, string>): Promise<TermsPage['lines']> {
  const lines: TermsPage['lines'] = [];
  for (;;) {
    const page = await terms({ ...query, most: '1000', offset: String(lines.length) });
    lines.push(...page.lines);
    if (lines.length >= page.total || page.lines.length === 0) return lines;
  }
}

describe('a report of many rows', () => {
  test('is loaded whole, and told so', async () => {
    const [file] = (await viewIntake(world.deps, world.slug)).files;
    expect(file!.outcome).toMatchObject({ rows: TERMS * DAYS.length + 1, rejected: 0 });
  });

  test('adds up to the last hundredth', async () => {
    const page = await terms({ most: '1' });
    expect(page.total).toBe(TERMS);
    expect(page.costMicros).toBe(microsOf(ALL));
    expect(page.sums).toMatchObject({
      terms: TERMS,
      clicks: sum(ALL.map((t) => t.clicks)) * DAYS.length,
      conversions: sum(ALL.map((t) => t.conversions)) * DAYS.length,
      costMicros: microsOf(ALL),
    });
  });

  test('shows each term once, page by page, in order', async () => {
    const lines = await allLines({ sort: 'cost' });
    expect(new Set(lines.map((l) => l.raw))).toEqual(new Set(ALL.map((t) => t.text)));
    expect(lines).toHaveLength(TERMS);
    const costs = lines.map((l) => l.costMicros!);
    expect(costs.every((cost, i) => i === 0 || cost <= costs[i - 1]!)).toBe(true);
  });

  test('is narrowed by campaign and by returns as the rows say', async () => {
    const { campaign_id: id } = await world
      .db('campaign')
      .where({ account_id: world.accountId, name: 'Honey' })
      .first('campaign_id');
    const page = await terms({ campaign: String(id), returns: 'none', most: '1' });
    const expected = ALL.filter((t) => t.campaign === 'Honey' && t.conversions === 0);
    expect(page.sums).toMatchObject({ terms: expected.length, costMicros: microsOf(expected) });
  });

  test('has its words counted, each by the terms that hold it', async () => {
    const { lines } = await listWords(
      world.deps,
      world.slug,
      v.parse(WordsQuerySchema, { rank: 'terms', size: '1', forms: 'no' }),
    );
    for (const colour of [0, 9, 39]) {
      const holding = ALL.filter((_, i) => i % COLOURS === colour);
      expect(lines.find((l) => l.ngram === `colour${colour}`)).toMatchObject({
        terms: holding.length,
        costMicros: microsOf(holding),
        withoutReturnMicros: microsOf(holding.filter((t) => t.conversions === 0)),
      });
    }
  });
});

describe('one decision over many terms', () => {
  const marking = (filters: Record<string, string>) => ({
    ...{ kind: 'filter' as const, except: [] },
    filters: v.parse(FiltersSchema, filters),
  });
  const colour = marking({ holding: 'colour0', forms: 'no' });
  const account = { kind: 'account' as const };

  test('the smallest set for a word that all of them hold is that word', async () => {
    const question = {
      ...{ selection: colour, place: account },
      way: { by: 'few' as const, limit: 5, mayStopOthers: false },
    };
    const weighed = await weighBatch(world.deps, world.slug, question);
    const marked = ALL.filter((_, i) => i % COLOURS === 0);
    expect(weighed.marked).toMatchObject({ terms: marked.length, costMicros: microsOf(marked) });
    expect(weighed.negatives.first.map((n) => n.text)).toEqual(['colour0']);
    await draftBatch(world.deps, world.slug, world.personId, question);
    const after = await terms({ most: '1' });
    expect(after.counts).toMatchObject({ stopped: marked.length, remaining: TERMS - marked.length });
    expect((await tray()).stops).toMatchObject({ terms: marked.length, costMicros: microsOf(marked) });
    await emptyTray();
    expect((await terms({ most: '1' })).counts.remaining).toBe(TERMS);
  });

  test('more than fit in one go are refused with the way out, and nothing is drafted', async () => {
    const question = {
      ...{ selection: marking({ returns: 'none' }), place: account },
      way: { by: 'each' as const },
    };
    const { refusal } = await weighBatch(world.deps, world.slug, question);
    expect(refusal).toContain('5,000 fit in one go');
    await expect(draftBatch(world.deps, world.slug, world.personId, question)).rejects.toThrow(refusal!);
    expect((await tray()).changes).toEqual([]);
  });

  test('keeping them is one entry of the ledger, and one undo', async () => {
    const before = (await viewLedger(world.deps, world.slug)).lines.length;
    const { changed } = await setVerdicts(world.deps, world.slug, world.personId, {
      selection: colour,
      verdict: { is: 'kept', note: null },
    });
    expect(changed).toHaveLength(TERMS / COLOURS);
    const { lines } = await viewLedger(world.deps, world.slug);
    expect(lines).toHaveLength(before + 1);
    expect((await terms({ most: '1' })).counts.kept).toBe(TERMS / COLOURS);
    await undoEntry(world.deps, world.slug, world.personId, lines[0]!.id);
    expect((await terms({ most: '1' })).counts.kept).toBe(0);
  });
});

describe('a tray of many changes', () => {
  test('asks the database as often as one of few: to draft, to see, to write the sheet, to empty', async () => {
    const costOf = async (changes: Change[]) => {
      return {
        draft: await countQueries(() => draft(changes)),
        view: await countQueries(tray),
        sheet: await countQueries(() => traySheet(world.deps, world.slug)),
        empty: await countQueries(emptyTray),
      };
    };
    await costOf(exact(0, 5)); // whatever is read once has been read
    const few = await costOf(exact(0, 5));
    expect(Object.values(few).every((asked) => asked > 0)).toBe(true);
    expect(await costOf(exact(0, 1_000))).toEqual(few);
  });

  test('has a sheet with every change once, and each what it stops', async () => {
    await draft(exact(0, 1_000));
    const rows = Papa.parse<Record<string, string>>(await traySheet(world.deps, world.slug), {
      ...{ header: true, skipEmptyLines: true },
    }).data;
    expect(rows).toHaveLength(1_000);
    expect(sum(rows.map((row) => Number(row['terms stopped'])))).toBe(1_000);
    const cost = sum(rows.map((row) => Math.round(Number(row['cost EUR']) * 100))) * 10_000;
    expect(cost).toBe(microsOf(UNSOLD.slice(0, 1_000)));
    await emptyTray();
  });

  test('shows how full the account would be, and what passes the limit can not be handed over', async () => {
    const outcomes = await draft(exact(0, USUAL_LIMITS.accountNegatives + 5));
    expect(outcomes.every((o) => o.outcome === 'drafted')).toBe(true);
    const { room } = await tray();
    expect(room).toContainEqual(
      expect.objectContaining({
        what: 'negatives',
        used: USUAL_LIMITS.accountNegatives + 5,
        most: USUAL_LIMITS.accountNegatives,
      }),
    );
    await emptyTray();
  });
});

describe('a list of many negatives', () => {
  const paste = (into: { id: string } | { make: string }, from: number, to: number) => ({
    ...{ do: 'paste' as const, into, holds: 'words' as const },
    text: UNSOLD.slice(from, to)
      .map((t) => `[${t.text}]`)
      .join('\n'),
  });
  const listNamed = async (name: string) =>
    (await viewLists(world.deps, world.slug)).lists.find((l) => l.name === name)!;

  test('is pasted in one go, and tells apart what stands there already', async () => {
    const made = await draftEdit(world.deps, world.slug, world.personId, paste({ make: 'Many' }, 0, 1_500));
    expect(made).toMatchObject({ heldBack: null, refused: { count: 0 } });
    const { id } = await listNamed('Many');
    const { entries, list } = await viewEntries(world.deps, world.slug, id);
    expect(entries).toHaveLength(1_500);
    expect(list.room).toBe(USUAL_LIMITS.listNegatives - 1_500);
    const more = await previewEdit(world.deps, world.slug, paste({ id }, 1_490, 1_520));
    expect(more).toMatchObject({ changes: 20, already: 10, refused: { count: 0 } });
  });

  test('that would hold more than it may says so before it is drafted', async () => {
    const { id } = await listNamed('Many');
    const plan = await previewEdit(world.deps, world.slug, paste({ id }, 1_500, 4_500));
    expect(plan.over.join()).toContain(`its limit is ${USUAL_LIMITS.listNegatives}`);
  });

  test('leaves the tray in one go', async () => {
    await emptyTray();
    expect(await listNamed('Many')).toBeUndefined();
  });
});
