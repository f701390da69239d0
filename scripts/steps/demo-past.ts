import path from 'node:path';
import { range } from 'd3';
import * as v from 'valibot';
import { daysBetween, shiftDay, type Place } from '@/core';
import type { SeedRequest } from '@/contracts/platform';
import { TermsQuerySchema } from '@/contracts/sift';
import { createDeps } from '@/server/container';
import type { Deps, Task } from '@/server/use-cases/deps';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { fetchReport, moveClock, setFaults } from '@/server/use-cases/intake/fetch-report';
import { loadReport } from '@/server/use-cases/intake/load-report';
import { undoSent } from '@/server/use-cases/ledger/undo-sent';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewLists } from '@/server/use-cases/lists/view-lists';
import { addPeople, connectAccount, reachedDay } from '@/server/use-cases/set-up';
import { writeNote } from '@/server/use-cases/sift/remember';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { lookAtToday } from '@/server/use-cases/today/what-is-new';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { noteKnots } from '@/server/use-cases/untangle/knots/look-at-knots';
import { workOnSet } from '@/server/use-cases/tray/work-on-set';
import { ACCOUNT_SETTINGS, makeLarkfell, PAST_DAYS, PEOPLE, TODAY } from '../../demo/larkfell';
import { PAST, type PastWeek } from '../../demo/past';
import { step } from './say';
import { seedPlatform } from './seed-platform';
import type { Settings } from './settings';

const WEEK = 7;

/**
 * Lets Larkfell work with Gate Post for three months, by the use-cases that people call: each week brings its report, and
 * in some of them something is stopped, noted or taken back, of which the traffic of the next week knows. What was
 * broken off goes on with the week after.
 */
export async function makePast(settings: Settings, scale: number, traffic: number): Promise<void> {
  const began = shiftDay(TODAY, WEEK - PAST_DAYS);
  const weeks = Math.ceil((PAST_DAYS - WEEK) / WEEK) + 1;
  const dayOf = (week: number) => (week === weeks ? TODAY : shiftDay(began, WEEK * (week - 1)));
  const accounts = Object.keys(ACCOUNT_SETTINGS);
  const reached = await atTime(settings, new Date(`${TODAY}T08:00:00Z`), (deps) =>
    reachedDay(deps, accounts),
  );
  if (reached === null) await begin(settings, makeLarkfell(scale, traffic, began));
  const weeksToCome = range(2, weeks + 1).filter((week) => reached === null || dayOf(week) > reached);
  // The accounts know nothing of each other, so their weeks pass beside each other.
  const passWeeks = async (slug: string) => {
    let last = reached ?? began;
    for (const week of weeksToCome) {
      const { every, weeks: known } = PAST[slug]!;
      if (week % every !== 0 && week !== weeks) continue;
      const day = dayOf(week);
      if (slug === accounts[0]) step(`Telling the past of Larkfell: the week up to ${day}`);
      await atTime(settings, new Date(`${day}T08:30:00Z`), async (deps, work) => {
        const person = await personIn(deps, PEOPLE[week % 2]!);
        await moveClock(deps, slug, daysBetween(last, day));
        await fetchReport(deps, slug, person);
        await work();
        await live(deps, slug, known[week] ?? {}, work);
        if (week === weeks - 1)
          for (const one of PEOPLE) await lookAtToday(deps, slug, await personIn(deps, one));
      });
      last = day;
    }
  };
  await Promise.all(accounts.map(passWeeks));
}

/** The first week: people, accounts, and their first reports. */
async function begin(settings: Settings, seeds: readonly SeedRequest[]) {
  const moment = new Date(`${seeds[0]!.account.today}T08:30:00Z`);
  await atTime(settings, moment, (deps) => addPeople(deps, PEOPLE));
  const connect = ({ account: { id, name, currency } }: SeedRequest) =>
    atTime(settings, moment, async (deps, work) => {
      const known = ACCOUNT_SETTINGS[id as keyof typeof ACCOUNT_SETTINGS];
      await connectAccount(deps, { ...known, slug: id, name, platformAccountId: id, currency });
      await work();
    });
  const loads: Promise<void>[] = [];
  for (const seed of seeds) {
    await seedPlatform(`http://127.0.0.1:${settings.platformPort}`, seed);
    loads.push(connect(seed)); // while the next one is seeded
  }
  await Promise.all(loads);
}

/** Does something with what all use-cases need, at a moment; `work` does what the job process would do until nothing is left. */
async function atTime<Answer>(
  settings: Settings,
  moment: Date,
  doing: (deps: Deps, work: () => Promise<void>) => Promise<Answer>,
): Promise<Answer> {
  const tasks: Task[] = [];
  const deps: Deps = {
    ...createDeps({ moment }),
    files: path.join(settings.data, 'files'),
    enqueue: (_db, task) => Promise.resolve(void tasks.push(task)),
  };
  const work = async () => {
    for (let task = tasks.shift(); task; task = tasks.shift()) {
      if (task.name === 'load-report') await loadReport(deps, task.accountId, task.reportFileId);
      if (task.name === 'note-knots') await noteKnots(deps, task.accountId);
      if (task.name === 'send-change-set') await workOnSet(deps, task.accountId, task.changeSetId);
    }
  };
  try {
    return await doing(deps, work);
  } finally {
    await deps.db.destroy();
  }
}

async function personIn(deps: Deps, name: string): Promise<number> {
  const { people } = await listAccountsAndPeople(deps);
  return people.find((one) => one.name === name)!.id;
}

/** What people did in a week. */
async function live(
  deps: Deps,
  slug: string,
  { notes = [], kept = [], tray }: PastWeek,
  work: () => Promise<void>,
) {
  for (const { by, about, body } of notes)
    await writeNote(deps, slug, await personIn(deps, by), { kind: 'term', about, body });
  for (const { by, raw, note } of kept)
    await setVerdict(deps, slug, await personIn(deps, by), { raw, verdict: { is: 'kept', note } });
  if (!tray) return;
  const person = await personIn(deps, tray.by);
  const { why, stops, worst, undoes, fault } = tray;
  const placeOf = await placesOf(deps, slug);
  const query = v.parse(TermsQuerySchema, { view: 'remaining', most: String(worst || 1) });
  const { lines } = await listTerms(deps, slug, query);
  const words = stops.map(({ text, match, in: where, forcedBecause }) => ({
    change: { kind: 'add negative', text, match, place: placeOf(where) } as const,
    ...{ why, forcedBecause },
  }));
  const terms = lines.slice(0, worst).filter(({ kind }) => kind === 'query');
  const exact = terms.map(({ raw: text }) => ({
    change: { kind: 'add negative', text, match: 'exact', place: placeOf('account') } as const,
    why: 'paid for weeks, and nothing came of it',
  }));
  if (undoes !== undefined) {
    const { lines: entries } = await viewLedger(deps, slug, { find: `“${undoes}”`, about: 'change' });
    const sent = entries.find(({ change }) => change?.undo.kind === 'remove negative');
    await undoSent(deps, slug, person, sent!.change!.id);
  }
  await draftChanges(deps, slug, person, [...words, ...exact]);
  if (fault) await setFaults(deps, slug, { faults: [{ fault, times: 1 }] });
  await sendTray(deps, slug, person);
  await work();
}

/** Where something is stopped, by the names that the platform shows. */
async function placesOf(deps: Deps, slug: string) {
  const { lists, campaigns } = await viewLists(deps, slug);
  return (where: { list: string } | { campaign: string } | 'account'): Place => {
    if (where === 'account') return { kind: 'account', id: null };
    if ('list' in where) return { kind: 'list', id: lists.find((one) => one.name === where.list)!.id };
    return { kind: 'campaign', id: campaigns.find((one) => one.name === where.campaign)!.id };
  };
}
