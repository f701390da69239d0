import type { Days } from '@/contracts/days';
import { daysBetween, lookBack } from '@/core';
import type { AccountSummary } from '@/contracts/common';
import type { Pulse, PulseAnswer } from '@/contracts/decisions';
import type { Member } from '@/contracts/roles';
import { listAccounts, listPeople } from '../../repositories/account/accounts';
import { accountsOf, listMembers } from '../../repositories/account/members';
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

type Named = { slug: string; name: string; isRetired: boolean };

/** The accounts and people there are, the retired accounts too. */
export async function listAccountsAndPeople(
  deps: Deps,
): Promise<{ accounts: Named[]; people: { id: number; name: string }[] }> {
  const [accounts, people] = await Promise.all([listAccounts(deps.db), listPeople(deps.db)]);
  return { accounts: accounts.map(({ slug, name, isRetired }) => ({ slug, name, isRetired })), people };
}

/** Who works in an account, and in which accounts one of them has a role; the retired accounts too. */
export async function describeMembers(
  deps: Deps,
  slug: string,
  personId: number,
): Promise<{ people: Member[]; accounts: Named[] }> {
  const { id } = await requireAccount(deps, slug);
  const [members, accounts] = await Promise.all([listMembers(deps.db, id), listAccountsOf(deps, personId)]);
  return { accounts, people: members.filter(({ role }) => role !== 'none') };
}

/** The accounts in which a person has a role, the retired ones too. */
export async function listAccountsOf(deps: Deps, personId: number): Promise<Named[]> {
  const [accounts, own] = await Promise.all([listAccounts(deps.db), accountsOf(deps.db, personId)]);
  return accounts
    .filter(({ id }) => own.has(id))
    .map(({ slug, name, isRetired }) => ({ slug, name, isRetired }));
}

/** The versions of an account, and whether loading and sending go on. Every open browser asks for them every few seconds. */
export async function feelWholePulse(deps: Deps, slug: string): Promise<PulseAnswer> {
  return { ...(await feelPulse(deps, slug)), jobsSilentSince: await silentSince(deps.db) };
}

export async function feelPulse(deps: Deps, slug: string): Promise<Pulse> {
  const { dataVersion, decisionVersion } = await requireAccount(deps, slug);
  return { data: dataVersion, decisions: decisionVersion };
}
