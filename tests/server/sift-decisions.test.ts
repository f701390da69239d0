import { feelPulse } from '@/server/use-cases/account/describe-account';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Change } from '@/core';
import { BatchSchema, type BatchWay } from '@/contracts/decisions';
import { FiltersSchema, TermsQuerySchema, WordsQuerySchema } from '@/contracts/sift';
import { draftBatch, setVerdicts, weighBatch } from '@/server/use-cases/sift/batch';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { pullOut } from '@/server/use-cases/sift/pull-out';
import {
  lookAt,
  tagWords,
  removeNote,
  removeView,
  saveView,
  viewNotes,
  viewSavedViews,
  writeNote,
} from '@/server/use-cases/sift/remember';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { setVerdict, viewKept } from '@/server/use-cases/sift/set-verdict';
import { findUnseen, listTerms, listThemes, listWords, plotView } from '@/server/use-cases/sift/sift-terms';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewKeywords, viewTerm } from '@/server/use-cases/sift/view-term';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { weighChoice } from '@/server/use-cases/sift/weigh-choice';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const terms = (query: Record<string, string> = {}) =>
  listTerms(world.deps, world.slug, v.parse(TermsQuerySchema, query));
const names = async (query: Record<string, string> = {}) =>
  (await terms(query)).lines.map((l) => l.raw).sort();
const lineOf = async (raw: string, query: Record<string, string> = {}) =>
  (await terms(query)).lines.find((l) => l.raw === raw)!;
const detailOf = async (raw: string, query: Record<string, string> = {}) =>
  viewTerm(world.deps, world.slug, { term: (await lineOf(raw, query)).id });
const other = async () =>
  ((await world.db('person').where({ name: 'Tobias Finch' }).first('person_id')) as { person_id: number })
    .person_id;
const give = (
  raw: string,
  verdict: Parameters<typeof setVerdict>[3]['verdict'],
  seen?: 'open' | 'kept' | 'aside',
) => setVerdict(world.deps, world.slug, world.personId, { raw, verdict, seen });
const draft = async (...changes: Change[]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change })),
  );
const emptyTray = async () => {
  const { changes } = await viewTray(world.deps, world.slug);
  if (changes.length > 0)
    await removeFromTray(
      world.deps,
      world.slug,
      changes.map((c) => c.id),
    );
};
const campaignId = async (name: string) =>
  String((await world.db('campaign').where({ name }).first('campaign_id')).campaign_id);

describe('verdicts', () => {
  test('a term that is kept lies among the kept, with who and why, and can be let go', async () => {
    const { was } = await give('Bee hive movie', { is: 'kept', note: 'our own film' }, 'open');
    expect(was).toEqual({ is: 'open' });
    expect(await names({ view: 'kept' })).toEqual(['bee hive movie']);
    expect((await detailOf('bee hive movie', { view: 'kept' })).verdict).toEqual({
      ...{ is: 'kept', by: 'Maren Oakes', note: 'our own film' },
    });
    const { kept, earned } = await viewKept(world.deps, world.slug);
    expect([kept.map((k) => k.raw), earned]).toEqual([['Bee hive movie'], 1]);
    await give('bee hive movie', { is: 'open' }, 'kept');
    expect((await terms()).counts.kept).toBe(0);
  });

  test('the second to decide about a term is told, and nothing is overwritten', async () => {
    await give('bee hive movie', { is: 'aside', moreClicks: 5 });
    const late = setVerdict(world.deps, world.slug, await other(), {
      ...{ raw: 'bee hive movie', verdict: { is: 'kept', note: null }, seen: 'open' },
    });
    await expect(late).rejects.toThrow('was set aside by Maren Oakes, so nothing was changed');
    expect((await terms()).counts).toMatchObject({ aside: 1, kept: 0 });
    // The same again, as after a lost answer, is no quarrel.
    await give('bee hive movie', { is: 'aside', moreClicks: 5 }, 'open');
    await give('bee hive movie', { is: 'open' }, 'aside');
  });

  test('a term set aside comes back when it has so many more clicks', async () => {
    await give('hive stand movie', { is: 'aside', moreClicks: 4 });
    expect(await names()).not.toContain('hive stand movie');
    const newest = (await terms({ view: 'aside' })).lines[0]!.lastDay;
    const report = (day: string, clicks: number) =>
      world.load(
        `Search term,Campaign,Ad group,Keyword,Match type,Day,Impr.,Clicks,Cost,Conversions\nhive stand movie,Hives,Stands,hive stand,broad,${day},9,${clicks},1.00,0`,
      );
    const dayAfter = (days: number) =>
      new Date(Date.parse(`${newest}T00:00:00Z`) + (days + 3) * 86_400_000).toISOString().slice(0, 10);
    await report(dayAfter(1), 3);
    expect(await names()).not.toContain('hive stand movie');
    await report(dayAfter(2), 1);
    expect(await names()).toContain('hive stand movie');
    await give('hive stand movie', { is: 'open' });
  });

  test('a product code can be set aside, and need not be kept', async () => {
    await expect(give('LK-2041', { is: 'kept', note: null })).rejects.toThrow('need not be kept');
    await give('LK-2041', { is: 'aside', moreClicks: 100 });
    expect(await names({ view: 'aside' })).toEqual(['LK-2041']);
    await give('LK-2041', { is: 'open' });
  });
});

describe('filters', () => {
  test('by the kind of keyword, by region, by trait, against the plain rule', async () => {
    const all = (await terms()).lines;
    for (const [query, keeps] of [
      [{ served: 'broad' }, (l: (typeof all)[number]) => l.servedBy.match === 'broad'],
      [{ served: 'loose' }, (l) => ['broad', 'automatic'].includes(l.servedBy.match)],
      [{ served: 'exact' }, () => false],
      [{ region: '1-60,0-0' }, (l) => l.clicks! >= 1 && l.clicks! <= 60 && l.conversions === 0],
      [{ trait: 'code' }, (l) => l.kind === 'code'],
      [{ returns: 'over' }, (l) => l.conversions! > 0 && l.costMicros! / l.conversions! > 18_000_000],
      [{ returns: 'either' }, (l) => l.conversions === 0],
    ] as [Record<string, string>, (l: (typeof all)[number]) => boolean][]) {
      const expected = all.filter(keeps).map((l) => l.raw);
      expect(await names(query), JSON.stringify(query)).toEqual(expected.sort());
    }
  });

  test('every sort puts what is undefined last, both ways, and pages without gaps', async () => {
    for (const sort of [
      'without',
      'cost',
      'clicks',
      'impressions',
      'conversions',
      'target',
      'evidence',
      'term',
    ])
      for (const direction of ['asc', 'desc']) {
        const { lines } = await terms({ sort, direction });
        const pages = await Promise.all(
          [0, 3].map((offset) => terms({ sort, direction, offset: String(offset), most: '3' })),
        );
        expect(pages.flatMap((p) => p.lines).map((l) => l.raw)).toEqual(lines.map((l) => l.raw).slice(0, 6));
        if (sort === 'target') expect(lines.map((l) => l.conversions! > 0)[0]).toBe(true);
        if (sort === 'clicks') {
          const clicks = lines.map((l) => l.clicks!);
          expect(clicks).toEqual([...clicks].sort((a, b) => (direction === 'asc' ? a - b : b - a)));
        }
      }
  });

  test('a word called a location finds the terms that hold it; a neutral one is not shown', async () => {
    const words = async () =>
      (await listWords(world.deps, world.slug, v.parse(WordsQuerySchema, {}))).lines.map((l) => l.ngram);
    expect(await names({ trait: 'location' })).toEqual([]);
    await tagWords(world.deps, world.slug, world.personId, { text: 'Tattoo', tag: 'location' });
    expect(await names({ trait: 'location' })).toEqual(['bee course tattoo']);
    await tagWords(world.deps, world.slug, world.personId, { text: 'tattoo', tag: 'neutral' });
    expect(await words()).not.toContain('tattoo');
    await tagWords(world.deps, world.slug, world.personId, { text: 'tattoo', tag: null });
    expect(await words()).toContain('tattoo');
  });

  test('themes and the plot hold the terms of the view', async () => {
    const themes = await listThemes(world.deps, world.slug, v.parse(FiltersSchema, {}));
    expect(themes.lines.map((t) => t.words)).toContainEqual(['movie']);
    const all = (await terms()).lines;
    const plot = await plotView(world.deps, world.slug, v.parse(FiltersSchema, {}));
    expect(plot.dots.reduce((sum, d) => sum + d.terms, 0) + plot.withoutClicks).toBe(all.length);
    expect(plot.dots.reduce((sum, d) => sum + d.costMicros, 0)).toBe(
      all.filter((l) => l.clicks! > 0).reduce((sum, l) => sum + l.costMicros!, 0),
    );
  });
});

describe('what is remembered', () => {
  test('notes on a term by any spelling of it, with who and when, and gone when removed', async () => {
    const about = { kind: 'term' as const, about: 'Bee  HIVE movie' };
    const { noteId } = await writeNote(world.deps, world.slug, world.personId, {
      ...about,
      body: 'a film of 2019',
    });
    expect((await detailOf('bee hive movie')).notes).toMatchObject([
      { body: 'a film of 2019', by: 'Maren Oakes' },
    ]);
    expect((await lineOf('bee hive movie')).notes).toBe(1);
    const again = await writeNote(world.deps, world.slug, world.personId, {
      ...about,
      body: 'a film of 2019',
    });
    expect(again, 'sent twice, it is the same note').toEqual({ noteId });
    await removeNote(world.deps, world.slug, world.personId, noteId);
    expect((await viewNotes(world.deps, world.slug, about)).notes).toEqual([]);
    await expect(removeNote(world.deps, world.slug, world.personId, noteId)).rejects.toThrow('gone already');
    const { lines } = await viewLedger(world.deps, world.slug);
    expect(lines.slice(0, 2).map((l) => l.about)).toEqual(['note', 'note']);
  });

  test('a view under a name that is taken is not overwritten unseen', async () => {
    const save = (search: string, replaces: string | null = null) =>
      saveView(world.deps, world.slug, world.personId, { name: 'Films', search, replaces });
    await save('holding=movie');
    await expect(save('holding=film')).rejects.toThrow('saved by Maren Oakes. Nothing was saved');
    const [view] = (await viewSavedViews(world.deps, world.slug)).views;
    await save('holding=film', view!.at);
    expect((await viewSavedViews(world.deps, world.slug)).views[0]!.search).toBe('holding=film');
    await removeView(world.deps, world.slug, world.personId, 'Films');
    expect((await viewSavedViews(world.deps, world.slug)).views).toEqual([]);
  });

  test('the pulse beats with every decision, and not without one', async () => {
    const before = await feelPulse(world.deps, world.slug);
    expect(await feelPulse(world.deps, world.slug)).toEqual(before);
    await give('bee hive movie', { is: 'kept', note: null });
    const after = await feelPulse(world.deps, world.slug);
    expect(after.decisions).toBeGreaterThan(before.decisions);
    await give('bee hive movie', { is: 'open' });
  });
});

describe('the pass', () => {
  test('counts what was looked at, finds the next unseen, and begins anew with the next report', async () => {
    const before = (await terms()).pass!;
    const { lines } = await terms();
    await lookAt(world.deps, world.slug, [lines[0]!.id, lines[1]!.id]);
    await lookAt(world.deps, world.slug, [lines[1]!.id]);
    const after = (await terms()).pass!;
    expect(after.terms - before.terms).toBe(2);
    expect(after.costMicros - before.costMicros).toBe(lines[0]!.costMicros! + lines[1]!.costMicros!);
    const next = await findUnseen(world.deps, world.slug, v.parse(TermsQuerySchema, { offset: '0' }));
    expect(next).toEqual({ index: 2 });
    expect(await names({ trait: 'unseen' })).not.toContain(lines[0]!.raw);

    const day = (await world.db('term_day').max('day as day').first())!.day as string;
    await world.load(
      `Search term,Campaign,Ad group,Keyword,Match type,Day,Impr.,Clicks,Cost,Conversions\nbrand new thing,Hives,Starter,bee hive,broad,${day},9,3,1.00,0`,
    );
    await world.db('account').update({ lag_days: 0, data_version: world.db.raw('data_version + 1') });
    expect(await names({ trait: 'new' })).toEqual(['brand new thing']);
    expect((await terms()).pass!.terms).toBe(before.terms);
  });
});

describe('a batch', () => {
  const ask = (way: BatchWay, selection: unknown, place: unknown = { kind: 'own campaign' }) =>
    v.parse(BatchSchema, { way, selection, place });
  const all = { kind: 'filter', filters: {}, except: [] };

  test('each as exact leaves out codes, exact keywords and protected terms, and says so', async () => {
    const day = (await world.db('term_day').max('day as day').first())!.day as string;
    await world.load(
      `Search term,Campaign,Ad group,Keyword,Match type,Day,Impr.,Clicks,Cost,Conversions\nfree hive,Hives,Starter,free hive,exact,${day},9,3,1.00,0`,
    );
    const answer = await weighBatch(world.deps, world.slug, ask({ by: 'each' }, all));
    const why = Object.fromEntries(answer.leftOut.map((l) => [l.why, l.terms.first]));
    expect(why).toEqual({
      ...{ 'product code': ['LK-2041'], 'exact keyword': ['free hive'], protected: ['bee hive kit'] },
    });
    expect(answer).toMatchObject({ refusal: null, others: { terms: 0 }, bound: null });
    expect(answer.stops.terms).toBe(answer.changes);
    const outcomes = await draftBatch(world.deps, world.slug, world.personId, ask({ by: 'each' }, all));
    expect(outcomes.map((o) => o.outcome)).toEqual(outcomes.map(() => 'drafted'));
    expect(outcomes).toHaveLength(answer.changes);
    const left = await terms();
    expect(left.lines.map((l) => l.raw).sort()).toEqual(['LK-2041', 'bee hive kit', 'free hive']);
    expect(left.counts.stopped).toBe(answer.stops.terms);
    await emptyTray();
  });

  test('the smallest set stops nothing that is not marked, unless it may, and then it is named', async () => {
    const ids = await Promise.all(['bee hive movie'].map(async (raw) => (await lineOf(raw)).id));
    const marked = { kind: 'terms', ids };
    const strict = await weighBatch(
      world.deps,
      world.slug,
      ask({ by: 'few', limit: 1, mayStopOthers: false }, marked, { kind: 'account' }),
    );
    expect(strict).toMatchObject({ stops: { terms: 1 }, others: { terms: 0 } });
    const loose = await weighBatch(
      world.deps,
      world.slug,
      ask({ by: 'few', limit: 1, mayStopOthers: true }, marked, { kind: 'account' }),
    );
    expect(loose.negatives.first[0]).toMatchObject({ text: 'movie', match: 'phrase' });
    expect(loose.others).toMatchObject({ terms: 1, first: ['hive stand movie'] });
    expect(loose.bound!.stoppedMicros).toBe(loose.bound!.mostMicros);
  });

  test('these and their like are stopped by what they share, and what was held back is told', async () => {
    const day = (await world.db('term_day').max('day as day').first())!.day as string;
    const rows = ['ant', 'bat', 'cat', 'dog', 'elk', 'fox'].map(
      (animal) => `${animal} lampshade,Hives,Starter,bee,broad,${day},40,20,9.00,0`,
    );
    await world.load(
      `Search term,Campaign,Ad group,Keyword,Match type,Day,Impr.,Clicks,Cost,Conversions\n${rows.join('\n')}`,
    );
    const ids = await Promise.all(
      ['ant', 'bat', 'cat', 'dog', 'elk'].map(async (animal) => (await lineOf(`${animal} lampshade`)).id),
    );
    const answer = await weighBatch(
      world.deps,
      world.slug,
      ask({ by: 'like', limit: 25 }, { kind: 'terms', ids }, { kind: 'account' }),
    );
    expect(answer.negatives.first).toEqual([{ text: 'lampshade', match: 'phrase', places: 1 }]);
    expect(answer).toMatchObject({ marked: { terms: 5, costMicros: 45_000_000 }, stops: { terms: 5 } });
    expect(answer.others).toMatchObject({ terms: 1, first: ['fox lampshade'] });
    expect(answer.heldBack).toMatchObject({
      unwanted: { texts: 1, costMicros: 9_000_000, stopped: 1, stoppedMicros: 9_000_000 },
      good: { stopped: 0 },
    });
    expect(answer.bound).toBeNull();
  });

  test('under a campaign it stands where the term ran there, and no more than fits is weighed', async () => {
    const courses = await campaignId('Courses');
    const day = (await world.db('term_day').max('day as day').first())!.day as string;
    const row = (campaign: string, group: string, cost: number) =>
      `okapi lamp,${campaign},${group},bee,broad,${day},9,3,${cost}.00,0`;
    await world.load(
      `Search term,Campaign,Ad group,Keyword,Match type,Day,Impr.,Clicks,Cost,Conversions\n${row('Hives', 'Starter', 9)}\n${row('Courses', 'Weekend', 2)}`,
    );
    const { id } = await lineOf('okapi lamp');
    const places = async (filters: object) => {
      const selection = { kind: 'terms', ids: [id], filters };
      const outcomes = await draftBatch(
        ...([world.deps, world.slug, world.personId, ask({ by: 'each' }, selection)] as const),
      );
      await emptyTray();
      return outcomes.map((o) => (o.outcome === 'drafted' && 'place' in o.change ? o.change.place.id : null));
    };
    expect(await places({})).toEqual([await campaignId('Hives')]);
    expect(await places({ campaign: courses })).toEqual([courses]);
    const inHand = await weighChoice(world.deps, world.slug, { term: id, campaign: courses, positions: [] });
    expect(inHand.choices[0]!.places.find((p) => p.place.kind === 'campaign')!.place.id).toBe(courses);
  });

  test('what nobody can stop is refused with the reason', async () => {
    const code = { kind: 'terms', ids: [(await lineOf('LK-2041')).id] };
    const question = ask({ by: 'each' }, code);
    await expect(draftBatch(world.deps, world.slug, world.personId, question)).rejects.toThrow('left out');
  });

  test('keeping and setting aside many at once, and taking it back', async () => {
    const selection = v.parse(BatchSchema.entries.selection, all);
    const aside = { is: 'aside' as const, moreClicks: 50 };
    const { changed } = await setVerdicts(world.deps, world.slug, world.personId, {
      selection,
      verdict: aside,
    });
    const page = await terms();
    expect([page.counts.remaining, page.counts.aside]).toEqual([0, changed.length]);
    const back = v.parse(BatchSchema.entries.selection, { kind: 'terms', ids: changed });
    await setVerdicts(world.deps, world.slug, world.personId, { selection: back, verdict: { is: 'open' } });
    expect((await terms()).counts.aside).toBe(0);
  });
});

describe('pulling a term out of what the tray stops', () => {
  test('each way lets the term through and leaves unstopped what it says', async () => {
    const place = { kind: 'account' as const, id: null };
    await draft({ kind: 'add negative', text: 'movie', match: 'phrase', place });
    const line = await lineOf('bee hive movie', { view: 'stopped' });
    const [stop] = (await viewTerm(world.deps, world.slug, { term: line.id })).draftedStops;
    const { ways } = await pullOut(world.deps, world.slug, { term: line.id, change: stop!.changeId });
    expect(ways.map((w) => w.how)).toEqual(['longer', 'none']);
    expect(ways[0]).toMatchObject({ left: { terms: 0 } });
    expect(ways[1]).toMatchObject({ left: { terms: 1, first: ['hive stand movie'] } });
    const other = await lineOf('free bee hive plans');
    await expect(pullOut(world.deps, world.slug, { term: other.id, change: stop!.changeId })).rejects.toThrow(
      'does not stop the term',
    );

    await draft(...ways[0]!.changes);
    expect(await names({ view: 'stopped' })).toEqual(['hive stand movie']);
    const { changes } = await viewTray(world.deps, world.slug);
    expect(changes.map((c) => c.said)).toEqual(['Stop “stand movie” (phrase) in the whole account']);
    await emptyTray();
    await expect(pullOut(world.deps, world.slug, { term: line.id, change: stop!.changeId })).rejects.toThrow(
      'not in the tray any more',
    );
  });
});

describe('what is in hand beside a negative', () => {
  test('a negative that covers it already is named', async () => {
    const place = { kind: 'campaign' as const, id: await campaignId('Hives') };
    await draft({ kind: 'add negative', text: 'movie', match: 'broad', place });
    const line = await lineOf('bee hive movie', { view: 'stopped' });
    const { choices } = await weighChoice(world.deps, world.slug, { term: line.id, positions: [1, 2] });
    const at = (kind: string) => choices[0]!.places.find((p) => p.place.kind === kind)!;
    expect(at('campaign').coveredBy).toMatchObject({
      text: 'movie',
      match: 'broad',
      placeName: 'campaign Hives',
    });
    expect(at('adGroup').coveredBy).toMatchObject({ text: 'movie' });
    expect(at('account').coveredBy).toBeNull();
    await emptyTray();
  });

  test('the days of a term and the keywords beside it carry its sums', async () => {
    const line = await lineOf('bee hive kit');
    const detail = await viewTerm(world.deps, world.slug, { term: line.id });
    expect(detail.days.reduce((sum, d) => sum + d.costMicros, 0)).toBe(line.costMicros);
    const { keywords } = await viewKeywords(world.deps, world.slug, { adGroup: detail.ran[0]!.adGroupId });
    expect(keywords.map((k) => k.text)).toEqual(expect.arrayContaining(['bee hive', 'free hive']));
  });

  test('an exact keyword is a case for its bid: set, sent, read back; and for a pause', async () => {
    const own = (await detailOf('free hive')).ownKeyword!;
    expect(own).toMatchObject({ adGroup: 'Starter', bidMicros: 700_000, drafted: null });
    expect(own.paysMicros).toBe(Math.floor((own.expectedCvr! * 18_000_000) / 10_000 + 1e-9) * 10_000);
    const bid = { kind: 'set bid' as const, keywordId: own.id, bidMicros: 300_000, wasMicros: 700_000 };
    const [done] = await draft(bid);
    expect(done).toMatchObject({ outcome: 'drafted', said: 'Bid 0.30 (was 0.70) for “free hive” (exact)' });
    expect((await draft({ ...bid, bidMicros: 200_000 }))[0]).toMatchObject({
      outcome: 'already there',
      said: 'A bid for this keyword is in the tray already, put in by Maren Oakes.',
    });
    expect((await draft({ ...bid, wasMicros: 900_000 }))[0]).toMatchObject({ outcome: 'refused' });
    await draft({ kind: 'pause keyword', keywordId: own.id });
    await sendTray(world.deps, world.slug, world.personId);
    await world.work();
    const keyword = await world.db('keyword').where({ text: 'free hive' }).first();
    expect(keyword).toMatchObject({ bid_micros: 300_000, status: 'paused', changed_on: '2026-11-22' });
    expect((await viewTray(world.deps, world.slug)).sent[0]).toMatchObject({
      state: 'confirmed',
      confirmed: 2,
    });
    expect((await detailOf('free hive')).ownKeyword).toBeNull(); // it is paused now
  });

  test('a product code is excluded as a product, never as a keyword', async () => {
    const place = { kind: 'campaign' as const, id: await campaignId('Hives') };
    const { exclusions } = await detailOf('LK-2041');
    expect(exclusions.map((e) => [e.place.kind, e.weight.terms])).toEqual([
      ['adGroup', 1],
      ['campaign', 1],
    ]);
    const exclude = { kind: 'exclude product' as const, code: 'LK-2041', place };
    expect((await draft({ ...exclude, code: 'bee hive' }))[0]).toMatchObject({ outcome: 'refused' });
    await draft(exclude);
    expect(await names({ view: 'stopped' })).toEqual(['LK-2041']);
    await sendTray(world.deps, world.slug, world.personId);
    await world.work();
    expect((await viewTray(world.deps, world.slug)).sent[0]).toMatchObject({ state: 'confirmed' });
    expect((await terms()).counts.already).toBeGreaterThanOrEqual(1);
    expect((await draft(exclude))[0]).toMatchObject({ outcome: 'already there' });
  });
});
