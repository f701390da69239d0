import type { Days } from '@/contracts/days';
import { daysBetween, lookBack } from '@/core';
import type { AccountSummary } from '@/contracts/common';
import type { Pulse, PulseAnswer } from '@/contracts/decisions';
import { listAccounts, listPeople, type Person } from '../../repositories/account/accounts';
import { silentSince } from '../../repositories/job-processes';
import { findDataDays } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** What the frame around every screen shows of an account. */
export async function describeAccount(deps: Deps, slug: string, days?: Days): Promise<AccountSummary> {
  const account = await requireAccount(deps, slug);
  const dataDays = await findDataDays(deps.db, account.id);
  const wanted = days ?? account.windowDays;
  return {
    slug: account.slug,
    name: account.name,
    currency: account.currency,
    steersBy: account.steersBy,
    targetMicros: account.targetMicros,
    targetAcos: account.targetAcos,
    defaultMatch: account.defaultMatch,
    window: dataDays && windowOf(wanted, dataDays.to, account.lagDays),
    dataDays,
    lagDays: account.lagDays,
    platformDay: account.platformDay,
    isConnected: account.platformAccountId !== null,
    isRetired: account.isRetired,
  };
}

function windowOf(days: Days, newest: string, lagDays: number): AccountSummary['window'] {
  const window = typeof days === 'number' ? lookBack(newest, days, lagDays) : days;
  return { ...window, days: daysBetween(window.from, window.to) + 1 };
}

/** The accounts and people there are, the retired too. */
export async function listAccountsAndPeople(
  deps: Deps,
): Promise<{ accounts: { slug: string; name: string; isRetired: boolean }[]; people: Person[] }> {
  const [accounts, people] = await Promise.all([listAccounts(deps.db), listPeople(deps.db)]);
  return { accounts: accounts.map(({ slug, name, isRetired }) => ({ slug, name, isRetired })), people };
}

/** The people who may be chosen. */
export async function listActivePeople(deps: Deps): Promise<Person[]> {
  return (await listPeople(deps.db)).filter(({ isRetired }) => !isRetired);
}

/** The versions of an account, and whether loading and sending go on. Every open browser asks for them every few seconds. */
export async function feelWholePulse(deps: Deps, slug: string): Promise<PulseAnswer> {
  return { ...(await feelPulse(deps, slug)), jobsSilentSince: await silentSince(deps.db) };
}

export async function feelPulse(deps: Deps, slug: string): Promise<Pulse> {
  const { dataVersion, decisionVersion } = await requireAccount(deps, slug);
  return { data: dataVersion, decisions: decisionVersion };
}
