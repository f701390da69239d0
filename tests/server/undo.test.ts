import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { PlatformChange } from '@/contracts/platform';
import { TermsQuerySchema } from '@/contracts/sift';
import type { Change } from '@/core';
import { setVerdicts } from '@/server/use-cases/sift/batch';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { takeOverOutside, undoOutside } from '@/server/use-cases/tray/elsewhere/settle-outside';
import { fetchReport } from '@/server/use-cases/intake/fetch-report';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { takeOverVersion } from '@/server/use-cases/lists/history';
import { dropHangRule, exceptFromRule, keepHangRule } from '@/server/use-cases/lists/rule-hangings';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import {
  tagWords,
  removeNote,
  removeView,
  saveView,
  viewNotes,
  viewSavedViews,
  viewWordTags,
  writeNote,
} from '@/server/use-cases/sift/remember';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeWorld, type World } from '../support/world';

/** Whatever applied at once is taken back from its entry in the ledger. */
let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const ask = <Args extends unknown[], Answer>(
  question: (deps: World['deps'], slug: string, ...args: Args) => Promise<Answer>,
  ...args: Args
) => question(world.deps, world.slug, ...args);
const ledger = async () => (await ask(viewLedger)).lines;
const undo = async (what: RegExp) => {
  const line = (await ledger()).find((l) => l.canUndo && what.test(l.what));
  if (!line) throw new Error(`no entry ${what} can be undone`);
  await ask(undoEntry, world.personId, line.id);
  await world.work();
};
const terms = async (view: string) =>
  (await ask(listTerms, v.parse(TermsQuerySchema, { view, returns: 'any' }))).lines;
const texts = async (view: string) => (await terms(view)).map((line) => line.raw).sort();
async function elsewhere(...changes: PlatformChange[]) {
  const body = JSON.stringify({ changes: changes.map((change) => ({ key: randomUUID(), change })) });
  const response = await fetch(`${world.platformUrl}/accounts/${world.slug}/changes`, {
    method: 'POST',
    body,
  });
  expect(
    ((await response.json()) as { answers: { outcome: string }[] }).answers.map((a) => a.outcome),
  ).toEqual(changes.map(() => 'applied'));
  await ask(fetchReport, world.personId);
  await world.work();
}

describe('a verdict', () => {
  const give = (raw: string, verdict: Parameters<typeof setVerdict>[3]['verdict']) =>
    ask(setVerdict, world.personId, { raw, verdict });

  test('keep and set aside are undone, and the undo too', async () => {
    await give('free bee hive plans', { is: 'kept', note: 'ours' });
    expect(await texts('kept')).toContain('free bee hive plans');
    await undo(/^Keep “free/);
    expect(await texts('kept')).not.toContain('free bee hive plans');
    await undo(/^Take back: Keep “free/);
    expect(await texts('kept')).toContain('free bee hive plans');
    await give('free bee hive plans', { is: 'aside', moreClicks: 5 });
    await undo(/^Set “free/);
    // Kept again, with the note and by whom it was kept.
    const row = await world.db('protected_term').where({ text: 'free bee hive plans' }).first();
    expect(row).toMatchObject({ note: 'ours', person_id: world.personId });
    expect(await texts('aside')).toEqual([]);
  });

  test('what was decided otherwise since stays, and is said', async () => {
    await give('hive stand movie', { is: 'kept', note: null });
    await give('hive stand movie', { is: 'aside', moreClicks: 9 });
    await expect(undo(/^Keep “hive stand/)).rejects.toThrow(/decided otherwise since/);
    expect(await texts('aside')).toEqual(['hive stand movie']);
    await undo(/^Set “hive stand/);
    expect(await texts('kept')).toContain('hive stand movie');
  });

  test('of many terms is undone for those that still have it', async () => {
    const all = (await terms('remaining')).filter((line) => line.kind === 'query');
    expect(all.length).toBeGreaterThan(1);
    const selection = { kind: 'terms' as const, ids: all.map((line) => line.id), filters: {} };
    const before = await texts('remaining');
    await ask(setVerdicts, world.personId, {
      selection: selection as never,
      verdict: { is: 'aside', moreClicks: 3 },
    });
    await give(all[0]!.raw, { is: 'kept', note: null });
    await undo(/^Set \d+ terms aside/);
    expect(await texts('aside')).toEqual([]);
    expect(await texts('remaining')).toEqual(before.filter((raw) => raw !== all[0]!.raw));
  });
});

describe('a load', () => {
  test('is taken back, and loaded again, from the ledger', async () => {
    const clicks = async () => Number((await world.db('term_day').sum('clicks as clicks').first())!.clicks);
    const before = await clicks();
    await world.load(
      'Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-20,Hives,Starter,undo me,41,4.10\n',
    );
    expect(await clicks()).toBe(before + 41);
    await undo(/^Load report\.csv/);
    expect(await clicks()).toBe(before);
    await undo(/^Take back report\.csv/);
    expect(await clicks()).toBe(before + 41);
    await undo(/^Load report\.csv/);
    expect(await clicks()).toBe(before);
  });
});

describe('notes, marks and views', () => {
  test('come and go', async () => {
    const about = { kind: 'term' as const, about: 'free bee hive plans' };
    const notes = async () => (await ask(viewNotes, about)).notes.map((n) => n.body);
    const { noteId } = await ask(writeNote, world.personId, { ...about, body: 'ask Tobias' });
    await ask(removeNote, world.personId, noteId);
    await undo(/^Remove the note/);
    expect(await notes()).toEqual(['ask Tobias']);
    await undo(/^Note on/);
    expect(await notes()).toEqual([]);

    const marks = async () => (await ask(viewWordTags)).tags.map((m) => `${m.text} ${m.tag}`);
    await ask(tagWords, world.personId, { text: 'Movie', tag: 'neutral' });
    await ask(tagWords, world.personId, { text: 'movie', tag: 'location' });
    await undo(/as a location/);
    expect(await marks()).toEqual(['movie neutral']);

    const views = async () => (await ask(viewSavedViews)).views.map((one) => `${one.name} ${one.search}`);
    await ask(saveView, world.personId, { name: 'Mine', search: 'a=1', replaces: null });
    const [saved] = (await ask(viewSavedViews)).views;
    await ask(saveView, world.personId, { name: 'Mine', search: 'a=2', replaces: saved!.at });
    await undo(/^Replace the view/);
    expect(await views()).toEqual(['Mine a=1']);
    await ask(removeView, world.personId, 'Mine');
    await undo(/^Remove the view/);
    expect(await views()).toEqual(['Mine a=1']);
    await undo(/^Save the view/);
    expect(await views()).toEqual([]);
  });
});

describe('a rule by which a list hangs', () => {
  const rules = async () =>
    (await ask(viewLists)).lists.flatMap((list) => list.rules.map((r) => `${list.name} ${r.except.length}`));
  const rule = { statuses: ['live'], channels: [], labels: [], nameHolds: [], nameLacks: [] };

  test('is dropped and kept again, with what was left out of it', async () => {
    const { lists, campaigns } = await ask(viewLists);
    const list = lists.find((l) => l.name === 'Old')!.id;
    const id = await ask(keepHangRule, world.personId, { list, rule });
    expect(await rules()).toEqual(['Old 0']);
    await ask(exceptFromRule, world.personId, id, { campaign: campaigns[0]!.id, isOut: true });
    expect(await rules()).toEqual(['Old 1']);
    await undo(/^Left .* out of the rule/);
    expect(await rules()).toEqual(['Old 0']);
    await ask(exceptFromRule, world.personId, id, { campaign: campaigns[0]!.id, isOut: true });
    await ask(dropHangRule, world.personId, id);
    await undo(/^Dropped the rule/);
    expect(await rules()).toEqual(['Old 1']);
    await undo(/is to hang on/);
    expect(await rules()).toEqual([]);
  });

  test('goes with what it hung, when that is undone', async () => {
    const { lists, campaigns } = await ask(viewLists);
    const list = lists.find((l) => l.name === 'Old')!.id;
    await ask(keepHangRule, world.personId, { list, rule });
    await ask(draftChanges, world.personId, [
      { change: { kind: 'hang list', listId: list, campaignId: campaigns[0]!.id } },
    ]);
    await ask(sendTray, world.personId);
    await world.work();
    const hung = (await ledger()).find((l) => l.change && /^Hang Old/.test(l.what))!;
    const { undoSent } = await import('@/server/use-cases/ledger/undo-sent');
    await ask(undoSent, world.personId, hung.change!.id);
    // The rule leaves this campaign out from now on: else it would want the list there again.
    expect(await rules()).toEqual(['Old 1']);
    expect((await ask(viewLists)).lists.find((l) => l.name === 'Old')!.wanted).not.toContain(0);
    await undo(/is to hang on/);
  });
});

describe('what others changed on the platform', () => {
  const outside = async () => (await ask(viewLists)).outside;
  const atCampaign = { kind: 'campaign', id: 'C1' } as const;

  test('outside lists is a finding with a ledger entry: negatives, exclusions, keywords and bids', async () => {
    await elsewhere(
      { kind: 'add negative', text: 'foreign', match: 'phrase', place: atCampaign },
      { kind: 'exclude product', code: 'LK-2041', place: atCampaign },
      { kind: 'pause keyword', keywordId: 'K2' },
      { kind: 'set bid', keywordId: 'K1', bidMicros: 900_000 },
    );
    expect((await outside()).map(({ said }) => said).sort()).toEqual([
      'Bid 0.90 (was 0.70) for “bee hive” (broad)',
      'Exclude product LK-2041 in campaign Hives',
      'Pause “hive stand” (broad)',
      'Stop “foreign” (phrase) in campaign Hives',
    ]);
    expect((await ledger())[1]).toMatchObject({
      who: 'read-back',
      what: expect.stringContaining('Somebody else changed on the platform: Stop “foreign”'),
    });
  });

  test('it blocks what is about the same, until it is taken over or undone', async () => {
    const back: Change = {
      ...{ kind: 'remove negative', text: 'foreign', match: 'phrase' },
      place: {
        kind: 'campaign',
        id: String((await world.db('campaign').where({ name: 'Hives' }).first()).campaign_id),
      },
    };
    await ask(draftChanges, world.personId, [{ change: back }]);
    await expect(ask(sendTray, world.personId)).rejects.toThrow(/Somebody else changed on the platform/);
    const foreign = (await outside()).find(({ said }) => said.includes('foreign'))!;
    await ask(takeOverOutside, world.personId, [foreign.id]);
    expect((await outside()).map(({ id }) => id)).not.toContain(foreign.id);
    await undo(/^Took over from somebody else: Stop “foreign”/);
    expect((await outside()).map(({ id }) => id)).toContain(foreign.id);
    await expect(ask(takeOverOutside, world.personId, [999])).rejects.toThrow(/settled already/);
  });

  test('undone all at once it goes through the tray, and is no finding when it is read back', async () => {
    await ask(
      undoOutside,
      world.personId,
      (await outside()).map(({ id }) => id),
    );
    expect(await outside()).toEqual([]);
    await ask(sendTray, world.personId);
    await world.work();
    expect((await ask(viewTray)).sent[0]).toMatchObject({ state: 'confirmed', total: 5, failed: [] });
    expect(await outside()).toEqual([]);
    const { rows } = await world.db.raw(`select text from negative where place_kind = 'campaign'`);
    expect(rows).toEqual([]);
  });

  test('what is gone already counts as removed', async () => {
    await elsewhere({ kind: 'add negative', text: 'twice', match: 'phrase', place: atCampaign });
    const [found] = await outside();
    await ask(undoOutside, world.personId, [found!.id]);
    const response = await fetch(`${world.platformUrl}/accounts/${world.slug}/changes`, {
      method: 'POST',
      body: JSON.stringify({
        changes: [
          {
            key: randomUUID(),
            change: { kind: 'remove negative', text: 'twice', match: 'phrase', place: atCampaign },
          },
        ],
      }),
    });
    expect(response.ok).toBe(true);
    await ask(sendTray, world.personId);
    await world.work();
    expect((await ask(viewTray)).sent[0]).toMatchObject({ state: 'confirmed', total: 1, failed: [] });
    expect((await ask(viewTray)).changes).toEqual([]);
  });

  test('in lists it can wait again after it was taken over', async () => {
    await elsewhere({
      kind: 'add negative',
      text: 'listed',
      match: 'phrase',
      place: { kind: 'list', id: 'S2' },
    });
    const { waiting } = await ask(viewLists);
    await ask(takeOverVersion, world.personId, waiting[0]!.id);
    expect((await ask(viewLists)).waiting).toEqual([]);
    await undo(/^Took over what somebody else changed/);
    expect((await ask(viewLists)).waiting).toHaveLength(1);
  });
});
