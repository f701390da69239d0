import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Change } from '@/core';
import type { LookRules } from '@/contracts/second-look';
import { addMember } from '@/server/use-cases/account/people';
import { setLookRules } from '@/server/use-cases/account/look-rules';
import { viewAccount } from '@/server/use-cases/account/view-account';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { setEndDate } from '@/server/use-cases/tray/end-dates';
import {
  putUp,
  sayYes,
  takeDown,
  takeYesBack,
  viewSecondLook,
} from '@/server/use-cases/tray/second-look/second-look';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeWorld, type World } from '../support/world';

const [MAREN, TOBIAS] = [1, 2];
const NOTHING: LookRules = { always: false, changes: null, costMicros: null, people: [] };
let world: World;
/** may prepare, and no more */
let petra: number;

beforeEach(async () => {
  world = await makeWorld();
  ({ id: petra } = await addMember(world.deps, world.slug, MAREN, { name: 'Petra Holm', role: 'prepare' }));
});
afterEach(() => world.close());

const ask = (rules: Partial<LookRules>) =>
  setLookRules(world.deps, world.slug, MAREN, { ...NOTHING, ...rules });
async function stop(...texts: string[]): Promise<number[]> {
  const changes = texts.map((text): { change: Change } => ({
    change: { kind: 'add negative', text, match: 'exact', place: { kind: 'account', id: null } },
  }));
  const outcomes = await draftChanges(world.deps, world.slug, petra, changes);
  return outcomes.flatMap((one) => (one.outcome === 'drafted' ? [one.changeId] : []));
}
const look = (person = TOBIAS) => viewSecondLook(world.deps, world.slug, person);
const up = (person = petra, note = '') => putUp(world.deps, world.slug, person, note);
const inTray = async () => (await viewTray(world.deps, world.slug)).changes.map(({ id }) => id);
const yes = async (person = TOBIAS) => sayYes(world.deps, world.slug, person, await inTray());
const send = (person: number, only?: number[]) =>
  sendTray(world.deps, world.slug, person, { ...(only && { only }) });

test('without a rule nobody asks for it, and one can still be had', async () => {
  await stop('bee movie');
  expect(await look()).toEqual({
    ...{ asks: [], up: null, isFree: true, mayYes: false },
    whoMay: ['Maren Oakes'],
  });
  await up();
  expect(await look()).toMatchObject({ isFree: true, mayYes: true, up: { by: 'Petra Holm', yes: null } });
  await send(TOBIAS);
  await stop('salary');
  expect(await look()).toMatchObject({ up: null });
});

describe('where the account asks for it each time', () => {
  beforeEach(() => ask({ always: true }));

  test('nothing is sent before another person has said yes', async () => {
    await stop('bee movie');
    await expect(send(MAREN)).rejects.toThrow(/needs a second look: the account asks for it each time.*Put/);
    await up(MAREN, 'the films');
    await expect(send(MAREN)).rejects.toThrow('nobody has said yes yet');
    await expect(yes(MAREN)).rejects.toThrow('You put this tray up');
    await yes();
    expect(await look(MAREN)).toMatchObject({
      ...{ isFree: true, mayYes: false },
      up: { isMine: true, note: 'the films', yes: { by: 'Tobias Finch', isMine: false }, unseen: [] },
    });
    await send(MAREN);
    expect(await inTray()).toEqual([]);
  });

  test('what comes after the yes needs another one; what is taken out does not', async () => {
    const [first] = await stop('bee movie', 'salary');
    await up();
    await yes();
    await removeFromTray(world.deps, world.slug, [first!]);
    expect(await look()).toMatchObject({ isFree: true, up: { unseen: [] } });
    const [late] = await stop('films about bees');
    expect(await look()).toMatchObject({ isFree: false, up: { unseen: [late] } });
    await expect(send(TOBIAS)).rejects.toThrow('came, or were changed, after the yes');
    await yes();
    await send(TOBIAS);
  });

  test('a change that is set otherwise after the yes needs another one', async () => {
    const ids = await stop('bee movie');
    await up();
    await yes();
    await setEndDate(world.deps, world.slug, ids, '2027-06-01');
    expect((await look()).up!.unseen).toEqual(ids);
  });

  test('the yes is to what the person saw', async () => {
    await stop('bee movie');
    await up();
    const seen = await inTray();
    const late = await stop('salary');
    await sayYes(world.deps, world.slug, TOBIAS, seen);
    expect((await look()).up!.unseen).toEqual(late);
    await send(TOBIAS, seen); // those have the yes
    await expect(send(TOBIAS)).rejects.toThrow('came, or were changed');
    expect(await inTray()).toEqual(late);
  });

  test('the yes, and the look itself, can be taken back', async () => {
    await stop('bee movie');
    await up();
    await yes();
    await takeYesBack(world.deps, world.slug, TOBIAS);
    await expect(takeYesBack(world.deps, world.slug, TOBIAS)).rejects.toThrow('Nobody has said yes');
    await expect(send(TOBIAS)).rejects.toThrow('nobody has said yes yet');
    await yes();
    await takeDown(world.deps, world.slug, petra);
    await expect(takeDown(world.deps, world.slug, petra)).rejects.toThrow('not up');
    await expect(yes()).rejects.toThrow('not up');
    await expect(send(TOBIAS)).rejects.toThrow('Put the tray up');
  });

  test('put up again, nobody has said yes to it', async () => {
    await stop('bee movie');
    await up();
    await yes();
    await up(petra, 'look again');
    expect(await look()).toMatchObject({
      isFree: false,
      mayYes: true,
      up: { yes: null, note: 'look again' },
    });
  });

  test('a tray that was emptied is up no more', async () => {
    const ids = await stop('bee movie');
    await up();
    await removeFromTray(world.deps, world.slug, ids);
    await stop('salary');
    expect(await look()).toMatchObject({ up: null, isFree: false });
  });

  test('an empty tray can not be put up', async () => {
    await expect(up()).rejects.toThrow('The tray is empty');
  });

  test('each step stands in the ledger, with who did it', async () => {
    await stop('bee movie');
    await up(petra, 'the films');
    await yes();
    const { lines } = await viewLedger(world.deps, world.slug, {});
    expect(lines.slice(0, 2).map(({ who, what, why }) => [who, what, why])).toEqual([
      ['Tobias Finch', 'Yes to 1 change of the tray that Petra Holm put up', null],
      ['Petra Holm', 'Put the tray up for a second look: 1 change', 'the films'],
    ]);
  });
});

test('where the account asks for it above a cost, what the tray stops decides', async () => {
  await ask({ costMicros: 0 });
  await stop('a query that nobody has typed');
  expect((await look()).asks).toEqual([]);
  await world.load(
    'Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-15,Hives,Starter,bee movie,3,4.10\n',
  );
  await stop('bee movie');
  expect((await look()).asks).toEqual(['the account asks for it where more than 0.00 EUR is stopped']);
});

describe('bounds of a person', () => {
  test('hold for what is sent at once, and within 30 days', async () => {
    await ask({ people: [{ person: TOBIAS, atOnce: 1, in30Days: 2 }] });
    await stop('bee movie');
    await send(TOBIAS);
    await stop('salary', 'films');
    expect((await look()).asks).toEqual([
      'you may send up to 1 change at once without it',
      'you may send up to 2 changes in 30 days without it, and have sent 1',
    ]);
    expect((await look(MAREN)).asks).toEqual([]);
    await expect(send(TOBIAS)).rejects.toThrow('up to 1 change at once');
    await up(TOBIAS);
    await yes(MAREN);
    await send(TOBIAS);
  });

  test('nobody says yes to more than he or she may send', async () => {
    await ask({ always: true, people: [{ person: TOBIAS, atOnce: 1, in30Days: null }] });
    await stop('bee movie', 'salary');
    await up();
    expect(await look()).toMatchObject({ mayYes: false, whoMay: ['Maren Oakes'] });
    await expect(yes()).rejects.toThrow('another person has to say yes');
    await yes(MAREN);
  });

  test('what was sent longer ago does not count', async () => {
    await ask({ people: [{ person: TOBIAS, atOnce: null, in30Days: 1 }] });
    await stop('bee movie');
    await send(TOBIAS);
    await stop('salary');
    await expect(send(TOBIAS)).rejects.toThrow('have sent 1');
    await world.db('change_set').whereNotNull('sent_at').update({ sent_at: '2020-01-01' });
    await send(TOBIAS);
  });
});

describe('the rules', () => {
  const rules: LookRules = {
    ...{ always: false, changes: 50, costMicros: 100_000_000 },
    people: [{ person: TOBIAS, atOnce: 50, in30Days: 200 }],
  };
  const stored = async () => (await viewAccount(world.deps, world.slug, MAREN)).secondLook;

  test('are an entry of the ledger, which an owner takes back', async () => {
    const { said } = await ask(rules);
    expect(said).toBe(
      'A second look: above 50 changes; above 100.00 EUR stopped; Tobias Finch above 50 at once and 200 in 30 days',
    );
    expect(await stored()).toEqual(rules);
    const entry = (await viewLedger(world.deps, world.slug, {})).lines[0]!.id;
    await expect(undoEntry(world.deps, world.slug, petra, entry)).rejects.toThrow('Petra Holm may prepare');
    await undoEntry(world.deps, world.slug, MAREN, entry);
    expect(await stored()).toEqual(NOTHING);
  });

  test('name only people of the account', async () => {
    await expect(ask({ people: [{ person: 999, atOnce: 1, in30Days: null }] })).rejects.toThrow(
      'no role here',
    );
    expect(await stored()).toEqual(NOTHING);
  });
});
