import path from 'node:path';
import * as v from 'valibot';
import { createDeps } from '@/server/container';
import { findAccount } from '@/server/repositories/account/accounts';
import { loadSpendByDay } from '@/server/repositories/facts';
import type { Deps } from '@/server/use-cases/deps';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewToday } from '@/server/use-cases/today/view-today';
import { viewSavedOfToday } from '@/server/use-cases/today/view-saved';
import { checkTray } from '@/server/use-cases/tray/check-tray';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { LedgerQuerySchema } from '@/contracts/ledger';
import { withFreshDemo } from '../../scripts/steps/fresh-demo';
import { environmentOf, readSettings } from '../../scripts/steps/settings';
import { makeAccount } from '../account';
import { fillAccount, SLUG, type Shape } from '../fill-account';
import { count, median, ms, timedOnce, type Line } from '../measure';

const SHAPE: Shape = {
  ...{ campaigns: 20, groups: 50, lists: 10, since: null },
  nameOf: (c) => `Campaign ${c}`,
  hangs: (list, campaign) => campaign % 10 === list,
};

/** Milliseconds. */
const MOST = { check: 1_000, ledger: 200, today: 1_000 };

/** What a large account may take: Today, the check of a large tray, and a page of a long ledger. */
export async function benchBounds(quick: boolean): Promise<Line[]> {
  const [terms, changes, entries] = quick ? [60_000, 500, 100_000] : [600_000, 5_000, 1_000_000];
  const settings = readSettings('test');
  return withFreshDemo(settings, { scale: 0.02, hasPast: false }, async () => {
    const account = makeAccount(terms, 5_000);
    await fillAccount(settings, account, SHAPE);
    Object.assign(process.env, environmentOf(settings));
    const deps = { ...createDeps(), files: path.join(settings.data, 'files') };
    try {
      const { id } = (await findAccount(deps.db, SLUG))!;
      const { person_id: personId } = await deps.db('person').first('person_id');
      await fillLedger(deps, id, personId, entries);
      return [
        ...(await benchToday(deps, `${count(terms)} terms`)),
        ...(await benchLedger(deps, personId, entries)),
        ...(await benchCheck(deps, personId, account.terms, changes)),
      ];
    } finally {
      await deps.db.destroy();
    }
  });
}

async function benchToday(deps: Deps, size: string): Promise<Line[]> {
  const open = () => Promise.all([viewToday(deps, SLUG), viewSavedOfToday(deps, SLUG)]);
  const first = await timedOnce(open);
  const later = await times(open);
  const { window } = await viewToday(deps, SLUG);
  const { id } = (await findAccount(deps.db, SLUG))!;
  const bare = await times(() => loadSpendByDay(deps.db, id, window));
  return [
    within('Today opens, nothing known', size, first, MOST.today),
    within('— asked again', size, later, MOST.today),
    {
      ...{ task: '— beside its bare query', size, ours: ms(first), against: `database alone: ${ms(bare)}` },
      ...{ ratio: (first / bare).toFixed(2), verdict: '' },
    },
  ];
}

/** Pages from the middle, and what is sought among all entries. */
async function benchLedger(deps: Deps, personId: number, entries: number): Promise<Line[]> {
  const size = `${count(entries)} entries`;
  const middle = await deps.db('ledger_entry').max('ledger_entry_id as id').first();
  const before = String(Math.round(Number(middle!.id) - entries / 2));
  const page = (asked: object) => () => viewLedger(deps, SLUG, v.parse(LedgerQuerySchema, asked));
  const cases: [string, object][] = [
    ['a page of the ledger, in its middle', { before }],
    ['— of one person', { before, who: String(personId) }],
    ['— that says a rare word', { find: 'quince 4711' }],
    ['— that says a frequent word', { before, find: 'looked at' }],
    ['— that says what nobody wrote', { find: 'no such words' }],
    ['— on one of a thousand lists', { on: 'list:900000007' }],
    ['— about a term', { term: 'bench term 77' }],
  ];
  const lines: Line[] = [];
  for (const [task, asked] of cases) lines.push(within(task, size, await times(page(asked)), MOST.ledger));
  return lines;
}

async function benchCheck(
  deps: Deps,
  personId: number,
  terms: readonly string[],
  changes: number,
): Promise<Line[]> {
  const place = { kind: 'account', id: null } as const;
  const wanted = Array.from({ length: changes }, (_, i) => terms[i * 7]!);
  await draftChanges(
    deps,
    SLUG,
    personId,
    [...new Set(wanted)].map((text) => ({ change: { kind: 'add negative', text, match: 'exact', place } })),
  );
  const size = `${count(changes)} changes`;
  const first = await timedOnce(() => checkTray(deps, SLUG));
  const again = await times(() => checkTray(deps, SLUG));
  return [
    within('a tray is checked, first', size, first, MOST.check),
    within('— again', size, again, MOST.check),
  ];
}

async function times(work: () => unknown): Promise<number> {
  await work(); // warms up
  const took: number[] = [];
  for (let round = 0; round < 7; round++) took.push(await timedOnce(work));
  return median(took);
}

function within(task: string, size: string, took: number, most: number): Line {
  return {
    ...{ task, size, ours: ms(took), against: `limit: ${ms(most)}` },
    ...{ ratio: (took / most).toFixed(2), verdict: took <= most ? 'within' : 'OVER' },
  };
}

/** Entries of many kinds, lists, terms and words, by two of three the person's. */
async function fillLedger({ db }: Deps, accountId: number, personId: number, entries: number): Promise<void> {
  await db.raw('alter table ledger_entry disable trigger ledger_says_what_it_touches');
  await db.raw(
    `insert into ledger_entry (account_id, actor, person_id, about, what, why, touches)
     select :account, case when i % 3 = 0 then 'read-back' else 'person' end,
            case when i % 3 = 0 then null else :person::integer end,
            (array['keep', 'load', 'note', 'tag'])[1 + i % 4],
            'Entry of quince ' || i || ' in the ledger', case when i % 2 = 0 then 'looked at in week ' || i % 53 end,
            array['list:' || 900000000 + i % 1000, 'term:bench term ' || i % 5000]
       from generate_series(1, :entries) i`,
    { account: accountId, person: personId, entries },
  );
  await db.raw('alter table ledger_entry enable trigger ledger_says_what_it_touches');
  await db.raw('vacuum analyze ledger_entry');
}
