import { counted, formatAmount, listed } from '@/core';
import type { LookRules } from '@/contracts/second-look';
import { lockAccount, type Account } from '../../repositories/account/accounts';
import { listMembers } from '../../repositories/account/members';
import { appendLedger } from '../../repositories/ledger';
import { loadLookRules, replaceLookRules } from '../../repositories/tray/second-looks';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** When a tray needs a second look, by the account and by person. */
export async function viewLookRules(deps: Deps, accountId: number): Promise<LookRules> {
  return told(await loadLookRules(deps.db, accountId));
}

const told = ({ account, people }: Awaited<ReturnType<typeof loadLookRules>>): LookRules => ({
  ...account,
  people: [...people].map(([person, limits]) => ({ person, ...limits })),
});

/**
 * Sets when a tray needs a second look: all of it at once.
 * @returns what was set, in words
 * @throws Refusal when a person who is named has no role here
 */
export async function setLookRules(
  deps: Deps,
  slug: string,
  personId: number,
  { people, ...rules }: LookRules,
  undoes?: number,
): Promise<{ said: string }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const members = new Map((await listMembers(trx, id)).map((one) => [one.id, one.name]));
    if (people.some(({ person }) => !members.has(person)))
      throw new Refusal('A person who is named has no role here. Nothing was changed.', 404);
    const before = told(await loadLookRules(trx, id));
    const bounds = people.filter(({ atOnce, in30Days }) => atOnce !== null || in30Days !== null);
    await replaceLookRules(trx, id, {
      account: rules,
      people: new Map(bounds.map(({ person, ...limits }) => [person, limits])),
    });
    const after: LookRules = { ...rules, people: bounds };
    const said = `A second look: ${sayRules(after, account, members)}`;
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'setting', what: said, undoes },
      ...{ before, after, undo: { do: 'set look rules', rules: before } },
    });
    return { said };
  });
}

function sayRules(
  { always, changes, costMicros, people }: LookRules,
  { currency }: Account,
  names: ReadonlyMap<number, string>,
): string {
  const parts = [
    ...(always ? ['each time'] : []),
    ...(!always && changes !== null ? [`above ${counted(changes, 'change')}`] : []),
    ...(!always && costMicros !== null
      ? [`above ${formatAmount(costMicros, currency)} ${currency} stopped`]
      : []),
    ...people.map(({ person, atOnce, in30Days }) => {
      const bounds = [
        ...(atOnce === null ? [] : [`${atOnce} at once`]),
        ...(in30Days === null ? [] : [`${in30Days} in 30 days`]),
      ];
      return `${names.get(person)} above ${listed(bounds)}`;
    }),
  ];
  return parts.length > 0 ? parts.join('; ') : 'never asked for';
}
