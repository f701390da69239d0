import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { FittedWeek, Rule } from '@/core';
import { findFittedWeeks, storeFittedWeeks } from '@/server/repositories/decisions/fitted-weeks';
import { addAccount } from '@/server/use-cases/account/add-account';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { fitWeeks } from '@/server/use-cases/rules/fitted-weeks';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { line, makePassWorld, NEWEST } from '../support/pass-report';
import type { World } from '../support/world';

/** The weeks of words at fault are fitted after each load, and kept for trials. */

let world: World;
beforeAll(async () => {
  world = await makePassWorld();
});
afterAll(() => world.close());
beforeEach(() => world.db('fitted_weeks').delete());

const fit = () => fitWeeks(world.deps, world.accountId);
type Kept = { facts_version: number; fitted_to: string; weeks: FittedWeek[] };
const kept = () =>
  world.db('fitted_weeks').select<Kept[]>('facts_version', 'fitted_to', 'weeks').first() as Promise<
    Kept | undefined
  >;
const rule: Rule = {
  ...{
    about: 'words',
    when: [{ of: 'clicks', is: 'at least', value: 1 }],
    lookBack: { days: 120, lagDays: 0 },
  },
  ...{ where: { is: 'everywhere', campaigns: [] }, then: { do: 'stop', at: 'campaign' } },
  ...{ how: { is: 'by approval' }, often: 'after each report' },
};
const stopped = async () =>
  (await tryRule(world.deps, world.slug, { rule })).stopped.map(({ term }) => term).sort();

test('a load asks for them', async () => {
  const { rows } = await world.db.raw(
    `select from graphile_worker.jobs where task_identifier = 'fit-weeks' and key = ?`,
    [`fit-weeks ${world.accountId}`],
  );
  expect(rows).toHaveLength(1);
});

test('a trial says by weeks that were fitted ahead what it says by those that it fits itself', async () => {
  const without = await stopped();
  await world.db('fitted_weeks').delete();
  await fit();
  expect(await stopped()).toEqual(without);
  expect(without).toContain('jobs');
});

test('a trial goes by the weeks that are kept, and keeps those that it fitted', async () => {
  await stopped();
  const { weeks } = (await kept())!;
  const withoutJobs = weeks.map((week) => ({
    ...week,
    words: week.words.filter(({ ngram }) => ngram !== 'jobs'),
  }));
  await world.db('fitted_weeks').update({ weeks: JSON.stringify(withoutJobs) });
  expect(await stopped()).not.toContain('jobs');
  expect((await kept())!.weeks).toEqual(withoutJobs);
});

describe('they are fitted anew', () => {
  const refitted = async (change: () => Promise<unknown>) => {
    await fit();
    const before = (await kept())!;
    await fit();
    expect(await kept()).toEqual(before);
    await change();
    await fit();
    const after = (await kept())!;
    return { before, after };
  };

  test('for another target, and for another lag', async () => {
    const by = [world.deps, world.slug, world.personId] as const;
    const dearer = await refitted(() => changeSettings(...by, { target: '100000' }));
    expect(dearer.after.fitted_to).not.toBe(dearer.before.fitted_to);
    expect(dearer.after.weeks).not.toEqual(dearer.before.weeks);
    const later = await refitted(() => changeSettings(...by, { lagDays: 30 }));
    expect(later.after.fitted_to).not.toBe(later.before.fitted_to);
  });

  test('for other facts', async () => {
    const { before, after } = await refitted(() =>
      world.load(
        `Day,Campaign,Ad group,Keyword,Match type,Search term,Impressions,Clicks,Cost,Conversions\n${line({ day: NEWEST, term: 'hive jobs new', clicks: 4, cost: 2 })}`,
      ),
    );
    expect(after.facts_version).toBeGreaterThan(before.facts_version);
    expect(after.weeks.length).toBeGreaterThan(0);
  });
});

test('weeks that were fitted to facts which are others by now are not kept', async () => {
  await fit();
  const before = (await kept())!;
  const old = { factsVersion: before.facts_version - 1, text: before.fitted_to };
  await storeFittedWeeks(world.db, world.accountId, old, []);
  expect(await kept()).toEqual(before);
  expect(await findFittedWeeks(world.db, world.accountId, old)).toBeNull();
});

test('an account without data has none', async () => {
  const empty = await addAccount(world.deps, {
    ...{ name: 'Empty', currency: 'EUR', steersBy: 'CPA', target: '20', person: 'Maren Oakes' },
  });
  const { account_id: emptyId } = await world.db('account').where({ slug: empty.slug }).first('account_id');
  await fitWeeks(world.deps, emptyId);
  expect(await kept()).toBeUndefined();
});
