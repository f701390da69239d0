import { viewIntake } from '@/server/use-cases/intake/take-in';
import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { inverse, shiftDay, type Change, type Place } from '@/core';
import { createSnapshots } from '@/server/compute/snapshots';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import type { Wanted } from '@/server/use-cases/tray/tray-in-memory';
import { checkGate } from '@/server/use-cases/gate/check-gate';
import { fetchDaily, fetchReport, moveClock, setDailyFetch } from '@/server/use-cases/intake/fetch-report';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { sendAgain, sendTray } from '@/server/use-cases/tray/send-tray';
import { stopSending } from '@/server/use-cases/tray/stop-sending';
import { undoSent } from '@/server/use-cases/ledger/undo-sent';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import { weighCell } from '@/server/use-cases/lists/weigh-hangings';
import { traySheet, viewTray } from '@/server/use-cases/tray/view-tray';
import { workOnSet } from '@/server/use-cases/tray/work-on-set';
import { aSeedServedElsewhere } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const account: Place = { kind: 'account', id: null };
const stop = (text: string, over: Partial<Extract<Change, { kind: 'add negative' }>> = {}): Change => ({
  kind: 'add negative',
  text,
  match: 'phrase',
  place: account,
  ...over,
});
const draft = (...changes: (Change | Wanted)[]) =>
  draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((c) => ('change' in c ? c : { change: c })),
  );
const tray = () => viewTray(world.deps, world.slug);
const send = async () => {
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
};
const idOf = async (table: string, name: string) => {
  const column = { campaign: 'campaign_id', shared_list: 'list_id', ad_group: 'ad_group_id' }[table]!;
  return String((await world.db(table).where({ name }).first())[column]);
};

describe('drafting', () => {
  test('the same twice is one, opposites cancel, what stands there already is not drafted', async () => {
    const [first, again] = await draft(stop('movie'), stop('Movie!'));
    expect([first!.outcome, again!.outcome]).toEqual(['drafted', 'already there']);
    const [opposite] = await draft({
      ...(stop('movie') as Extract<Change, { text: string }>),
      kind: 'remove negative',
    } as Change);
    expect(opposite!.outcome).toBe('cancelled');
    expect((await tray()).changes).toEqual([]);
    const list: Place = { kind: 'list', id: await idOf('shared_list', 'Work') };
    const [there] = await draft(stop('salary', { match: 'broad', place: list }));
    expect(there).toMatchObject({
      outcome: 'already there',
      said: expect.stringContaining('stands there already'),
    });
  });

  test.each([
    ['???', 'holds none'],
    ['LK-2041', 'product code'],
    ['a b c d e f g h i j k l m', '12 words'],
    ['x'.repeat(101), '100 characters'],
  ])('%s is refused with its reason', async (text, reason) => {
    const [outcome] = await draft(stop(text));
    expect(outcome).toMatchObject({ outcome: 'refused', said: expect.stringContaining(reason) });
  });

  test('what would stop a protected term is held back and names it; a reason forces it, and is kept', async () => {
    const [held] = await draft(stop('kit'));
    expect(held).toMatchObject({ outcome: 'held back', terms: { count: 1, first: ['bee hive kit'] } });
    expect((await tray()).changes).toEqual([]);
    const [forced] = await draft({ change: stop('kit'), forcedBecause: 'sold out for good' });
    expect(forced!.outcome).toBe('drafted');
    expect((await tray()).changes[0]).toMatchObject({
      forcedBecause: 'sold out for good',
      heldBackBy: { count: 0 },
    });
  });

  test('a change that a term kept since holds back goes in anew with a reason, and stands there once', async () => {
    await draft(stop('plans'));
    const kept = { raw: 'free bee hive plans', verdict: { is: 'kept' as const, note: null } };
    await setVerdict(world.deps, world.slug, world.personId, kept);
    const [forced] = await draft({ change: stop('plans'), forcedBecause: 'the kit is sold out' });
    expect(forced!.outcome).toBe('drafted');
    const { changes } = await tray();
    expect(changes).toMatchObject([{ forcedBecause: 'the kit is sold out', heldBackBy: { count: 0 } }]);
  });

  test('changes of one action are told from those of another', async () => {
    await draft(stop('plans'), stop('meme'));
    await draft(stop('jobs'));
    const [first, second, third] = (await tray()).changes.map(({ action }) => action);
    expect(second).toBe(first);
    expect(third).not.toBe(first);
  });

  test('a kept term is protected; a change drafted before it was kept can not be sent', async () => {
    await draft(stop('plans'));
    await setVerdict(world.deps, world.slug, world.personId, {
      raw: 'Free bee hive plans',
      verdict: { is: 'kept', note: null },
    });
    expect((await tray()).changes[0]!.heldBackBy.first).toEqual(['free bee hive plans']);
    await expect(sendTray(world.deps, world.slug, world.personId)).rejects.toThrow('free bee hive plans');
    await setVerdict(world.deps, world.slug, world.personId, {
      raw: 'free bee hive plans',
      verdict: { is: 'open' },
    });
    expect((await tray()).changes[0]!.heldBackBy.count).toBe(0);
    const ledger = await viewLedger(world.deps, world.slug);
    expect(ledger.lines.slice(0, 2).map((l) => l.what)).toEqual([
      'No longer keep “free bee hive plans” open',
      'Keep “free bee hive plans” open',
    ]);
  });

  test('the joint effect counts each term once, and each change what it adds', async () => {
    await draft(stop('movie'), stop('bee hive movie', { match: 'exact' }), stop('plans'));
    const view = await tray();
    expect(view.changes.map((c) => c.stops.terms)).toEqual([2, 0, 1]);
    expect(view.stops.terms).toBe(3);
    const cost = view.changes.reduce((sum, c) => sum + (c.stops.costMicros ?? 0), 0);
    expect(view.stops.costMicros).toBe(cost);
    const byDay = view.days.reduce((sum, d) => sum + d.stoppedMicros, 0);
    expect(byDay).toBe(cost);
  });

  test('a live keyword that is shut out is named', async () => {
    await draft(stop('free', { match: 'broad' }));
    expect((await tray()).changes[0]!.touched).toEqual([
      expect.objectContaining({
        severity: 'shut out',
        count: 1,
        first: [expect.objectContaining({ text: 'free hive' })],
      }),
    ]);
  });

  test('taking out a new list takes with it what needs it', async () => {
    const listId = `new:${randomUUID()}`;
    await draft(
      { kind: 'make list', listId, name: 'Films' },
      stop('movie', { place: { kind: 'list', id: listId } }),
      stop('plans'),
    );
    const view = await tray();
    const removed = await removeFromTray(world.deps, world.slug, [view.changes[0]!.id]);
    expect(removed).toHaveLength(2);
    expect((await tray()).changes.map((c) => c.said)).toEqual(['Stop “plans” (phrase) in the whole account']);
  });

  test('more lists on a campaign than it takes are not sent, and the limit is named', async () => {
    const campaignId = await idOf('campaign', 'Courses');
    for (let i = 0; i < 25; i++) {
      const listId = `new:${randomUUID()}`;
      await draft(
        { kind: 'make list', listId, name: `List ${i}` },
        { kind: 'hang list', listId, campaignId },
      );
    }
    const view = await tray();
    expect(view.room).toEqual([
      {
        place: 'campaign Courses',
        at: { kind: 'campaign', id: expect.any(String) as string },
        what: 'lists',
        used: 26,
        most: 25,
        couldDrop: { count: 0, first: [] },
      },
    ]);
    await expect(sendTray(world.deps, world.slug, world.personId)).rejects.toThrow(
      'would hold 26 lists; its limit is 25. Take 1 out',
    );
    expect((await tray()).changes).toHaveLength(50);
    await removeFromTray(world.deps, world.slug, [view.changes.at(-1)!.id]);
    await sendTray(world.deps, world.slug, world.personId);
  });

  test('more negatives than the account takes are not sent, and what is needless is named', async () => {
    const texts = ['plans', 'free plans', ...Array.from({ length: 1_200 }, (_, i) => `word${i}`)];
    await draft(...texts.map((text) => stop(text)));
    await expect(sendTray(world.deps, world.slug, world.personId)).rejects.toThrow(
      /its limit is 1200.*Needless there, since others stop the same: “free plans” \(phrase\)/,
    );
  });

  test('the tray as a sheet starts no formula', async () => {
    await draft({ change: stop('movie'), why: '=HYPERLINK("x")' });
    expect(await traySheet(world.deps, world.slug)).toContain(`"'=HYPERLINK(""x"")"`);
  });
});

describe('sending', () => {
  test('is read back, written in the ledger with what it cost before, and in the gate', async () => {
    await draft({ change: stop('movie'), why: 'films' });
    await send();
    const view = await tray();
    expect(view.changes).toEqual([]);
    expect(view.sent[0]).toMatchObject({ state: 'confirmed', total: 1, confirmed: 1, failed: [] });
    const { lines } = await viewLedger(world.deps, world.slug);
    expect(lines[0]).toMatchObject({
      who: 'Maren Oakes',
      what: 'Stop “movie” (phrase) in the whole account',
      why: 'films',
      change: { state: 'there', before: { terms: 2 }, since: null },
    });
    const gate = await checkGate(world.deps, world.slug, 'Bee-hive MOVIE');
    expect(gate).toMatchObject({
      adGroups: 3,
      open: 0,
      stoppers: [{ text: 'movie', placeName: 'the whole account', adGroups: 3, state: 'in force' }],
    });
  });

  test('a new list is made, filled and hung in one go, and bears its own id afterwards', async () => {
    const listId = `new:${randomUUID()}`;
    const campaignId = await idOf('campaign', 'Hives');
    await draft(
      { kind: 'make list', listId, name: 'Films' },
      stop('movie', { place: { kind: 'list', id: listId } }),
      { kind: 'hang list', listId, campaignId },
    );
    expect((await tray()).stops.terms).toBe(2);
    await send();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 3 });
    const lists = await viewLists(world.deps, world.slug);
    expect(lists.lists.find((l) => l.name === 'Films')).toMatchObject({
      entries: 1,
      hungOn: [lists.campaigns.findIndex((c) => c.id === campaignId)],
      isNew: false,
    });
    const { lines } = await viewLedger(world.deps, world.slug);
    const undone = await undoSent(world.deps, world.slug, world.personId, lines[0]!.change!.id);
    expect(undone).toMatchObject({ outcome: 'drafted', said: 'Take Films down from Hives' });
    expect((await tray()).reopens.terms).toBe(2);
  });

  test('what is refused says why and stands in the tray again; what succeeded is not sent twice', async () => {
    await draft(stop('movie'), { kind: 'make list', listId: `new:${randomUUID()}`, name: 'Films' });
    // Somebody else makes a list of that name meanwhile.
    const body = JSON.stringify({
      changes: [{ key: randomUUID(), change: { kind: 'make list', name: 'Films' } }],
    });
    await fetch(`${world.platformUrl}/accounts/small/changes`, { method: 'POST', body });
    await send();
    const view = await tray();
    expect(view.sent[0]).toMatchObject({
      state: 'partly failed',
      confirmed: 1,
      failed: [{ said: 'Make the list Films' }],
    });
    expect(view.changes).toEqual([
      expect.objectContaining({
        said: 'Make the list Films',
        failedBefore: expect.stringContaining('named Films'),
      }),
    ]);
  });

  test('is stopped after the batch that is on its way: the rest is in the tray again, and can be sent', async () => {
    await draft(...Array.from({ length: 120 }, (_, i) => stop(`stopword${i}`)));
    await sendTray(world.deps, world.slug, world.personId);
    const { setId } = (await tray()).sent[0]!;
    // A person stops it while the first batch is answered.
    const { platform } = world.deps;
    const stopsOnce = {
      ...platform,
      change: async (...asked: Parameters<typeof platform.change>) => {
        const answers = await platform.change(...asked);
        await stopSending(world.deps, world.slug, world.personId, setId);
        return answers;
      },
    };
    await workOnSet({ ...world.deps, platform: stopsOnce }, world.accountId, setId);
    const view = await tray();
    expect(view.sent[0]).toMatchObject({ state: 'confirmed', isStopped: true, total: 50, confirmed: 50 });
    expect(view.changes).toHaveLength(70);
    const { lines } = await viewLedger(world.deps, world.slug, { find: 'sending WAS', about: 'change' });
    expect(lines.map(({ what }) => what)).toEqual(['Sending was stopped: 70 changes back in the tray']);
    await expect(stopSending(world.deps, world.slug, world.personId, setId)).rejects.toThrow(
      /not being sent/,
    );
    await send();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', total: 70, isStopped: false });
  });

  test('a platform that is down loses nothing: the set waits, says so, and goes on', async () => {
    await draft(stop('movie'), stop('plans'));
    await world.stopPlatform();
    const setId = await sendTray(world.deps, world.slug, world.personId);
    await expect(workOnSet(world.deps, world.accountId, setId)).rejects.toThrow('can not be reached');
    const waiting = await tray();
    expect(waiting.sent[0]).toMatchObject({
      state: 'sending',
      answered: 0,
      trouble: expect.stringContaining('Nothing is lost'),
    });
    expect(waiting.changes).toEqual([]);
    await draft(stop('another')); // a new draft is open meanwhile
    await world.startPlatform();
    await sendAgain(world.deps, world.slug, setId);
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 2, trouble: null });
    expect((await tray()).changes).toHaveLength(1);
  });

  test('an answer that was lost on the way does nothing twice', async () => {
    await draft(stop('movie'));
    const change = world.deps.platform.change;
    let calls = 0;
    world.deps.platform.change = async (...args) => {
      const answers = await change(...args);
      calls += 1;
      if (calls === 1) throw new Error('the process fell over before it could note the answers');
      return answers;
    };
    const setId = await sendTray(world.deps, world.slug, world.personId);
    await expect(workOnSet(world.deps, world.accountId, setId)).rejects.toThrow('fell over');
    await workOnSet(world.deps, world.accountId, setId);
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 1 });
    const rows = await world.db('negative').where({ text: 'movie' });
    expect(rows).toHaveLength(1);
  });

  test('an empty tray is not sent', async () => {
    await expect(sendTray(world.deps, world.slug, world.personId)).rejects.toThrow('empty');
  });

  test('undo of a sent change is a change in the tray, and can be sent', async () => {
    await draft(stop('movie'));
    await send();
    const [line] = (await viewLedger(world.deps, world.slug)).lines;
    await undoSent(world.deps, world.slug, world.personId, line!.change!.id);
    expect((await viewLedger(world.deps, world.slug)).lines[0]!.change).toMatchObject({
      undoneBy: 'drafted',
    });
    await send();
    expect(await checkGate(world.deps, world.slug, 'bee hive movie')).toMatchObject({ open: 3 });
    expect((await viewLedger(world.deps, world.slug)).lines[1]!.change).toMatchObject({ undoneBy: 'sent' });
  });
});

test('after a week the ledger tells what it cost before, what since, and what slips through elsewhere', async () => {
  await world.close();
  world = await makeWorld(aSeedServedElsewhere());
  const place: Place = { kind: 'campaign', id: await idOf('campaign', 'Hives') };
  await draft(stop('movie', { place }));
  await send();
  await moveClock(world.deps, world.slug, 7);
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
  const line = (await viewLedger(world.deps, world.slug)).lines.find((l) => l.change);
  expect(line!.change!.before).toMatchObject({ terms: 2 });
  expect(line!.change!.before!.figures.costMicros).toBeGreaterThan(0);
  expect(line!.change!.since).toMatchObject({ days: 5, here: { terms: 0 }, elsewhere: { terms: 1 } });
  expect(line!.change!.since!.slips).toEqual([
    expect.objectContaining({ text: 'bee hive movie', adGroup: 'Weekend', campaign: 'Courses' }),
  ]);
  const { sentDay, before } = line!.change!;
  const beside = { from: shiftDay(sentDay, -30), to: shiftDay(sentDay, -1) };
  const days = { from: shiftDay(sentDay, 1), to: shiftDay(sentDay, 5) };
  const [compared] = (await viewLedger(world.deps, world.slug, { days, beside })).lines.filter(
    (l) => l.change,
  );
  expect(compared!.change!.beside).toMatchObject({ now: { clicks: 0, costMicros: 0 } });
  // The lag kept the newest days out of what stood before, so these days hold as much or more.
  expect(compared!.change!.beside!.then.costMicros).toBeGreaterThanOrEqual(before!.figures.costMicros!);
});

test('the newest report is fetched each day for the accounts that want it', async () => {
  const files = async () => (await viewIntake(world.deps, world.slug)).files;
  await moveClock(world.deps, world.slug, 1);
  const before = (await files()).length;
  await fetchDaily(world.deps);
  expect(await files()).toHaveLength(before);
  await setDailyFetch(world.deps, world.slug, true);
  await fetchDaily(world.deps);
  await world.work();
  expect((await files())[0]).toMatchObject({ source: 'platform', state: 'loaded' });
  await world.stopPlatform();
  await expect(fetchDaily(world.deps)).rejects.toThrow('could not be fetched');
  await world.startPlatform();
});

test('a cell of the lists says what hanging would stop, and what taking down would open', async () => {
  const [old, courses] = [await idOf('shared_list', 'Old'), await idOf('campaign', 'Courses')];
  const cell = await weighCell(world.deps, world.slug, old, courses);
  expect(cell).toMatchObject({
    hangs: false,
    weight: { terms: 1 },
  });
  await draft({ kind: 'hang list', listId: old, campaignId: courses });
  expect(await weighCell(world.deps, world.slug, old, courses)).toMatchObject({
    hangs: true,
    weight: { terms: 1 },
  });
  expect((await checkGate(world.deps, world.slug, 'bee course tattoo')).stoppedByTray).toBe(1);
});

test('the ledger is only ever added to', async () => {
  await setVerdict(world.deps, world.slug, world.personId, {
    raw: 'bee suit',
    verdict: { is: 'kept', note: null },
  });
  await expect(world.db('ledger_entry').update({ what: 'something else' })).rejects.toThrow(
    'only ever added to',
  );
});

describe('a tray that grows', () => {
  /** What a tray shows, laid from the start. */
  const anew = () => viewTray({ ...world.deps, snapshots: createSnapshots() }, world.slug);

  test('shows the same as one that is laid from the start, whatever was put in and taken out', async () => {
    const list: Place = { kind: 'list', id: await idOf('shared_list', 'Work') };
    const hang: Change = {
      kind: 'hang list',
      listId: list.id!,
      campaignId: await idOf('campaign', 'Hives'),
    };
    const steps: (() => Promise<unknown>)[] = [
      () => draft(stop('movie'), stop('plans', { match: 'broad' })),
      () => draft(stop('free bee', { place: list })),
      () => draft(hang),
      () => draft(stop('kit', { place: list })),
      () => draft(stop('movie', { match: 'exact', place: list })),
      () => draft(inverse(stop('movie'))),
      () =>
        setVerdict(world.deps, world.slug, world.personId, {
          ...{ raw: 'free bee hive plans', verdict: { is: 'kept', note: null } },
        }),
      () => draft(stop('salary'), inverse(hang)),
      async () => removeFromTray(world.deps, world.slug, [(await anew()).changes[0]!.id]),
      () => draft(stop('bee movie')),
    ];
    for (const step of steps) {
      await step();
      expect(await tray()).toEqual(await anew());
    }
  });

  test('is told from where the asker knows it, and from the start where it is another', async () => {
    await draft(stop('movie'), stop('plans'));
    const first = await tray();
    expect(first.kept).toBe(0);
    await draft(stop('salary'));
    const known = (told: string) => viewTray(world.deps, world.slug, undefined, told);
    const next = await known(first.told);
    expect([next.kept, next.changes.map(({ said }) => said)]).toEqual([
      2,
      ['Stop “salary” (phrase) in the whole account'],
    ]);
    expect(await known(next.told)).toMatchObject({ kept: 3, changes: [], told: next.told });
    await removeFromTray(world.deps, world.slug, [first.changes[0]!.id]);
    const other = await known(next.told);
    expect([other.kept, other.changes.length]).toEqual([0, 2]);
    for (const told of ['', '2', '2 x', '-1 x', '9 x', 'x y z']) expect((await known(told)).kept).toBe(0);
  });
});
