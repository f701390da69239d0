import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { shiftDay, type Change, type Place } from '@/core';
import type { Fault } from '@/contracts/platform';
import { OutsideTrouble } from '@/server/outside';
import { addAccount } from '@/server/use-cases/account/add-account';
import { undoTogether } from '@/server/use-cases/ledger/undo-sent';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { moveClock, setFaults } from '@/server/use-cases/intake/fetch-report';
import { endStops, setEndDate } from '@/server/use-cases/tray/end-dates';
import { commentOnChange, removeComment } from '@/server/use-cases/tray/comment';
import { checkTray } from '@/server/use-cases/tray/check-tray';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { sendAgain, sendTray, type Sending } from '@/server/use-cases/tray/send-tray';
import { stopSending } from '@/server/use-cases/tray/stop-sending';
import { sayDone } from '@/server/use-cases/tray/hand-over/say-done';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { workOnSet } from '@/server/use-cases/tray/work-on-set';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const EVERYWHERE: Place = { kind: 'account', id: null };
const stop = (text: string, place = EVERYWHERE): Change => ({
  ...{ kind: 'add negative', text, match: 'phrase', place },
});
async function draft(...changes: Change[]): Promise<number[]> {
  const wanted = changes.map((change) => ({ change }));
  const outcomes = await draftChanges(world.deps, world.slug, world.personId, wanted);
  return outcomes.map((one) => (one.outcome === 'drafted' ? one.changeId : 0));
}
const tray = () => viewTray(world.deps, world.slug);
const send = (sending?: Sending) => sendTray(world.deps, world.slug, world.personId, sending);
const setOf = (setId: number) => world.db('change_set').where({ change_set_id: setId }).first();
const switchOn = (fault: Fault, times = 1) =>
  setFaults(world.deps, world.slug, { faults: [{ fault, times }] });
const negatives = async () =>
  (await world.db('standin.negative').whereNot({ status: 'removed' }).select('body'))
    .map(({ body }) => `${body.text} ${body.match} ${body.place.kind} ${body.place.id}`)
    .sort();

describe('a platform with a fault', () => {
  test.each<[Fault, RegExp]>([
    ['fails', /answered 500/],
    ['hangs up before', /can not be reached/],
    ['hangs up after', /can not be reached/],
    ['is slow', /did not answer within 3 seconds/],
  ])('that %s is asked again, and has each change once', async (fault, said) => {
    await draft(stop('movie'), stop('plans'));
    const setId = await send();
    await switchOn(fault);
    await expect(workOnSet(world.deps, world.accountId, setId)).rejects.toThrow(OutsideTrouble);
    expect((await tray()).sent[0]).toMatchObject({ state: 'sending', trouble: expect.stringMatching(said) });
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 2, trouble: null });
    expect((await negatives()).filter((one) => /^(movie|plans)/.test(one))).toHaveLength(2);
  });

  test('that asks to slow down is left alone for as long as it says', async () => {
    await draft(stop('movie'));
    const setId = await send();
    await switchOn('asks to slow down');
    await workOnSet(world.deps, world.accountId, setId);
    expect((await setOf(setId)).trouble).toBe(
      'The ad platform asks to slow down. It goes on by itself after 2 seconds.',
    );
    const { rows } = await world.db.raw<{ rows: { waits: number }[] }>(
      `select extract(epoch from run_at - now())::float as waits from graphile_worker.jobs
        where task_identifier = 'send-change-set' and locked_at is null`,
    );
    expect(rows).toHaveLength(1);
    expect(rows[0]!.waits).toBeGreaterThan(0);
    expect(rows[0]!.waits).toBeLessThanOrEqual(2);
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 1 });
  });

  test('that puts some off gets those again, with growing waits, until it takes them', async () => {
    await draft(...['movie', 'plans', 'jobs', 'meme', 'salary'].map((text) => stop(text)));
    const setId = await send();
    await switchOn('puts some off');
    await workOnSet(world.deps, world.accountId, setId);
    expect((await setOf(setId)).trouble).toBe(
      'The ad platform put 1 change off. It goes on by itself after 2 seconds.',
    );
    expect((await tray()).sent[0]).toMatchObject({ answered: 4, total: 5 });
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 5 });
  });

  test('that always puts a change off is asked six times; then it is in the tray again, and says why', async () => {
    await draft(stop('movie'), stop('plans'), stop('jobs'));
    await send();
    await switchOn('puts some off', 100);
    const { platform } = world.deps;
    let calls = 0;
    // Alone in a batch a change is the first; two that the platform knows already stand before it.
    const asked: Awaited<ReturnType<typeof platform.change>>['answers'] = [];
    world.deps.platform = {
      ...platform,
      change: async (id, batch) => {
        calls += 1;
        const answer =
          batch.length === 3
            ? await platform.change(id, batch)
            : {
                revision: 0,
                answers: batch.map(({ key }) => ({ key, outcome: 'put off' as const, text: 'Busy.' })),
              };
        asked.push(...answer.answers);
        return answer;
      },
    };
    await world.work();
    expect(calls).toBe(6);
    expect((await tray()).sent[0]).toMatchObject({ state: 'partly failed', confirmed: 2 });
    expect((await tray()).changes).toMatchObject([
      {
        change: { text: 'jobs' },
        failedBefore: expect.stringMatching(/put it off 6 times: Busy\. Nothing is wrong/),
      },
    ]);
  });

  test('that refuses some says why, and those can be sent again without the rest', async () => {
    await draft(stop('movie'), stop('plans'), stop('jobs'));
    const setId = await send();
    await switchOn('refuses some');
    await workOnSet(world.deps, world.accountId, setId);
    await draft(stop('meme'));
    const failed = (await tray()).changes.find(({ failedBefore }) => failedBefore !== null)!;
    expect(failed.failedBefore).toBe('This account may not change that at the moment.');
    await send({ only: [failed.id] });
    await world.work();
    const view = await tray();
    expect(view.sent[0]).toMatchObject({ state: 'confirmed', total: 1 });
    expect(view.changes).toMatchObject([{ change: { text: 'meme' } }]);
  });

  test('that shows old data is read again, and nothing is taken for missing', async () => {
    await draft(stop('movie'));
    const setId = await send();
    await switchOn('shows old data');
    await workOnSet(world.deps, world.accountId, setId);
    expect((await tray()).sent[0]).toMatchObject({
      ...{ state: 'sending', answered: 1 },
      trouble: expect.stringContaining('still shows the account as it was before'),
    });
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 1 });
    const lines = (await viewLedger(world.deps, world.slug)).lines;
    expect(lines.filter(({ what }) => what.startsWith('Somebody else'))).toEqual([]);
  });

  test('that another person works on tells both apart', async () => {
    await draft(stop('movie'));
    await switchOn('has another user');
    await send();
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 1 });
    const { lines } = await viewLedger(world.deps, world.slug);
    const others = lines.filter(({ what }) => what.startsWith('Ilka Brandt changed on the platform'));
    expect(others.map(({ what }) => what)).toEqual([expect.stringContaining(': Stop “pallet price”')]);
    // Both what was changed outside lists and in one say who did it, and when.
    const { outside, waiting } = await viewLists(world.deps, world.slug);
    const { platform_day: on } = await world.db('account').where({ slug: world.slug }).first();
    expect(outside).toMatchObject([{ by: 'Ilka Brandt', on }]);
    expect(waiting).toMatchObject([{ by: 'Ilka Brandt', on, what: 'changed' }]);
  });

  test('faults that are on can be seen, and switched off', async () => {
    await switchOn('fails', 3);
    expect(await setFaults(world.deps, world.slug, null)).toEqual({ faults: [{ fault: 'fails', times: 3 }] });
    await setFaults(world.deps, world.slug, { faults: [] });
    await draft(stop('movie'));
    await send();
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed' });
  });
});

describe('trays beside each other', () => {
  test('a large one lets others have their turn', async () => {
    await draft(...Array.from({ length: 900 }, (_, i) => stop(`stopword${i}`)));
    const large = await send();
    await workOnSet(world.deps, world.accountId, large);
    // Batches of 50, 100, 200 and 400; the rest in its next turn.
    expect((await tray()).sent[0]).toMatchObject({ state: 'sending', answered: 750, trouble: null });
    const { rows } = await world.db.raw(
      `select 1 from graphile_worker.jobs where task_identifier = 'send-change-set' and run_at <= now()`,
    );
    expect(rows).toHaveLength(1);
    await workOnSet(world.deps, world.accountId, large);
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 900 });
  });

  test('one that fills a list waits for the one that makes it', async () => {
    await draft({
      kind: 'make list',
      listId: 'new:7d8d7f0e-9f0f-4a68-9f0c-0a4a2f6f5a11',
      name: 'Season',
      holds: 'words',
    });
    const { changes } = await tray();
    const made = changes[0]!.change as Extract<Change, { kind: 'make list' }>;
    await draft(stop('halloween', { kind: 'list', id: made.listId }));
    const first = await send({ only: [changes[0]!.id] });
    const second = await send();
    await workOnSet(world.deps, world.accountId, second);
    expect((await setOf(second)).trouble).toMatch(/waits for an earlier tray/);
    await workOnSet(world.deps, world.accountId, first);
    await world.work();
    const states = await world.db('change_set').whereIn('change_set_id', [first, second]).pluck('state');
    expect(states).toEqual(['confirmed', 'confirmed']);
  });

  test('a change that needs a list is sent with what makes the list', async () => {
    await draft({
      kind: 'make list',
      listId: 'new:7d8d7f0e-9f0f-4a68-9f0c-0a4a2f6f5a11',
      name: 'Season',
      holds: 'words',
    });
    const made = (await tray()).changes[0]!.change as Extract<Change, { kind: 'make list' }>;
    const [entry] = await draft(stop('halloween', { kind: 'list', id: made.listId }), stop('movie'));
    await send({ only: [entry!] });
    expect((await tray()).changes).toMatchObject([{ change: { text: 'movie' } }]);
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', confirmed: 2 });
  });
});

describe('a time for sending', () => {
  const LATER = () => new Date(Date.now() + 3_600_000).toISOString();
  const comeTime = (setId: number) =>
    world
      .db('change_set')
      .where({ change_set_id: setId })
      .update({ send_at: world.db.raw("now() - interval '1 minute'") });

  test('nothing is sent before it; then all is, and acts from that day on', async () => {
    await draft(stop('movie'));
    const at = LATER();
    const setId = await send({ at });
    await workOnSet(world.deps, world.accountId, setId);
    expect((await tray()).sent[0]).toMatchObject({ state: 'sending', answered: 0, sendAt: at });
    await moveClock(world.deps, world.slug, 2);
    const { platformDay } = await world
      .db('account')
      .where({ slug: world.slug })
      .first('platform_day as platformDay');
    await comeTime(setId);
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ state: 'confirmed', sendAt: null });
    expect((await setOf(setId)).sent_day).toBe(platformDay);
  });

  test('until then it can be taken back, whole, or sent at once', async () => {
    await draft(stop('movie'), stop('plans'));
    const setId = await send({ at: LATER() });
    const { said } = await stopSending(world.deps, world.slug, world.personId, setId);
    expect(said).toBe('Not sent: 2 changes back in the tray.');
    expect((await tray()).changes).toHaveLength(2);
    const again = await send({ at: LATER() });
    await sendAgain(world.deps, world.slug, again);
    await world.work();
    expect((await tray()).sent[0]).toMatchObject({ setId: again, state: 'confirmed', confirmed: 2 });
  });

  test('what may not be sent any more when it comes is in the tray again, and the ledger says why', async () => {
    await draft(stop('plans'));
    const setId = await send({ at: LATER() });
    await setVerdict(world.deps, world.slug, world.personId, {
      ...{ raw: 'free bee hive plans', verdict: { is: 'kept', note: null } },
    });
    await comeTime(setId);
    await workOnSet(world.deps, world.accountId, setId);
    expect((await tray()).changes).toMatchObject([{ heldBackBy: { first: ['free bee hive plans'] } }]);
    const [line] = (await viewLedger(world.deps, world.slug)).lines;
    expect(line!.what).toMatch(/^Not sent at its time, and back in the tray: .*free bee hive plans/);
  });

  test.each([
    [() => new Date(Date.now() - 1_000).toISOString(), 'This time is past'],
    [() => new Date(Date.now() + 400 * 86_400_000).toISOString(), 'within a year'],
  ])('a time that can not be is refused', async (at, said) => {
    await draft(stop('movie'));
    await expect(send({ at: at() })).rejects.toThrow(said);
    expect((await tray()).changes).toHaveLength(1);
  });
});

describe('a stop with an end', () => {
  const today = async () =>
    (await world.db('account').where({ slug: world.slug }).first('platform_day as day')).day;

  test('comes off by itself on that day, as a tray of its own, once', async () => {
    const ids = await draft(stop('halloween'), stop('movie'));
    const end = shiftDay(await today(), 3);
    await setEndDate(world.deps, world.slug, [ids[0]!], end);
    expect((await tray()).changes.map(({ endsOn }) => endsOn)).toEqual([end, null]);
    await send();
    await world.work();
    await moveClock(world.deps, world.slug, 2);
    await world.work();
    expect(await negatives()).toContain('halloween phrase account null');
    await moveClock(world.deps, world.slug, 1);
    expect(await endStops(world.deps, world.accountId)).toBe(0); // the clock saw to it already
    await world.work();
    expect(await negatives()).not.toContain('halloween phrase account null');
    expect(await negatives()).toContain('movie phrase account null');
    const { lines } = await viewLedger(world.deps, world.slug);
    expect(lines[0]).toMatchObject({
      ...{
        what: 'Let “halloween” (phrase) through again in the whole account',
        why: `it was to end on ${end}`,
      },
    });
  });

  test('and what was taken back before stays so', async () => {
    const [id] = await draft(stop('halloween'));
    await setEndDate(world.deps, world.slug, [id!], shiftDay(await today(), 1));
    await send();
    await world.work();
    await undoTogether(world.deps, world.slug, world.personId, id!, 'tray');
    await moveClock(world.deps, world.slug, 2);
    expect((await tray()).sent.filter(({ state }) => state === 'sending')).toEqual([]);
  });

  test('can be taken off again in the tray; a day that is past, and what opens, are refused', async () => {
    const [id] = await draft(stop('halloween'));
    const day = await today();
    await setEndDate(world.deps, world.slug, [id!], shiftDay(day, 5));
    const { was } = await setEndDate(world.deps, world.slug, [id!], null);
    expect(was).toEqual([{ changeId: id, endsOn: shiftDay(day, 5) }]);
    await expect(setEndDate(world.deps, world.slug, [id!], day)).rejects.toThrow('An end lies after');
    await removeFromTray(world.deps, world.slug, [id!]);
    await expect(setEndDate(world.deps, world.slug, [id!], null)).rejects.toThrow('in the tray any more');
  });
});

test('a stop with an end is put in the tray to be taken back where no platform is connected', async () => {
  const own = await addAccount(world.deps, {
    name: 'By hand',
    currency: 'EUR',
    steersBy: 'CPA',
    target: '20',
  });
  const { account_id: ownId } = await world.db('account').where({ slug: own.slug }).first('account_id');
  Object.assign(world, { slug: own.slug, accountId: ownId });
  const [id] = await draft(stop('halloween'));
  const day = new Date().toISOString().slice(0, 10);
  await setEndDate(world.deps, world.slug, [id!], shiftDay(day, 1));
  await sayDone(world.deps, world.slug, world.personId, await send());
  await world.db('change').where({ change_id: id }).update({ ends_on: day }); // the day has come
  expect(await endStops(world.deps, world.accountId)).toBe(1);
  expect(await endStops(world.deps, world.accountId)).toBe(0);
  expect((await tray()).changes).toMatchObject([{ change: { kind: 'remove negative', text: 'halloween' } }]);
});

describe('what is found of the tray before it is sent', () => {
  const check = () => checkTray(world.deps, world.slug);

  test('what others stop already, in the tray or in force, and which they are', async () => {
    const { campaign_id: hives } = await world.db('campaign').orderBy('campaign_id').first('campaign_id');
    const inHives: Place = { kind: 'campaign', id: String(hives) };
    const [narrow, , other] = await draft(stop('free plans', inHives), stop('plans'), stop('meme'));
    expect(await check()).toEqual({
      needless: [{ changeId: narrow, coveredBy: '“plans” (phrase) in the whole account' }],
      gone: [],
    });
    await send({ only: [other!] });
    await world.work();
    const [again] = await draft(stop('funny meme', inHives));
    expect((await check()).needless.map(({ changeId }) => changeId)).toContain(again);
  });

  test('what is about an element that is gone', async () => {
    const list: Change = {
      ...{ kind: 'make list', listId: 'new:7d8d7f0e-9f0f-4a68-9f0c-0a4a2f6f5a11', name: 'Season' },
      holds: 'words',
    };
    const { ad_group_id: adGroup } = await world.db('ad_group').orderBy('ad_group_id').first('ad_group_id');
    await draft(list, stop('movie'));
    const [inGroup] = await draft(stop('plans', { kind: 'adGroup', id: String(adGroup) }));
    expect((await check()).gone).toEqual([]);
    await world
      .db('change')
      .where({ change_id: inGroup })
      .update({
        body: JSON.stringify(stop('plans', { kind: 'adGroup', id: '999999' })),
      });
    await setEndDate(world.deps, world.slug, [inGroup!], null); // lays the draft anew
    expect((await check()).gone).toMatchObject([
      { changeId: inGroup, reason: 'the ad group is not there any more.' },
    ]);
  });
});

describe('comments on a change', () => {
  const say = (changeId: number, text: string, person = world.personId) =>
    commentOnChange(world.deps, world.slug, person, changeId, text);

  test('stand with it for all, and go on with it when it failed', async () => {
    const [, , third] = await draft(stop('movie'), stop('plans'), stop('jobs'));
    const { person_id: other } = await world
      .db('person')
      .whereNot({ person_id: world.personId })
      .first('person_id');
    await say(third!, 'Is this not a course of ours?');
    const { id } = await say(third!, 'It is not.', other);
    const { id: mistaken } = await say(third!, 'Oh');
    await removeComment(world.deps, world.slug, world.personId, mistaken);
    const comments = [
      { by: 'Maren Oakes', text: 'Is this not a course of ours?' },
      { by: 'Tobias Finch', text: 'It is not.' },
    ];
    expect((await tray()).changes[2]).toMatchObject({ comments });
    await expect(removeComment(world.deps, world.slug, world.personId, id)).rejects.toThrow('another person');
    await switchOn('refuses some');
    await send();
    await world.work();
    expect((await tray()).changes).toMatchObject([{ change: { text: 'jobs' }, comments }]);
    await expect(say(third!, 'Too late')).rejects.toThrow('not in the tray any more');
  });
});

describe('undoing several changes', () => {
  test('of a tray, and of all since, the account stands as before', async () => {
    const before = await negatives();
    await draft(stop('movie'), stop('plans'));
    await send();
    await world.work();
    const afterFirst = await negatives();
    const [meme] = await draft(stop('meme'));
    await send();
    await world.work();
    await undoTogether(world.deps, world.slug, world.personId, meme!, 'tray');
    await send();
    await world.work();
    expect(await negatives()).toEqual(afterFirst);
    const { change_id: oldest } = await world.db('change').orderBy('change_id').first('change_id');
    const { said } = await undoTogether(world.deps, world.slug, world.personId, oldest, 'since');
    expect(said).toBe('In the tray: what undoes 2 changes.');
    await send();
    await world.work();
    expect(await negatives()).toEqual(before);
    await expect(undoTogether(world.deps, world.slug, world.personId, oldest, 'since')).rejects.toThrow(
      'nothing to undo',
    );
  });
});

test('the ledger is only ever added to', async () => {
  await draft(stop('movie'));
  await send();
  await world.work();
  for (const statement of ['update ledger_entry set what = null', 'delete from ledger_entry'])
    await expect(world.db.raw(statement)).rejects.toThrow('the ledger is only ever added to');
});
