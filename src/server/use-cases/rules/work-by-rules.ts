import { listAccountsWithRules } from '../../repositories/decisions/rules';
import type { Deps } from '../deps';
import { actByThemselves } from './act-by-itself';
import { holdToPromises } from './promises';
import { runRules } from './run-rules';

/**
 * Lets an account's rules work: those that broke their promise stop themselves, the others look, and those that act by themselves
 * do so; who is to be told of it is told. May be called at any time, by several processes at once.
 * @returns how many stopped themselves, how many looked, and on how many terms they acted
 */
export async function workByRules(
  deps: Deps,
  accountId: number,
): Promise<{ stopped: number; looked: number; acted: number }> {
  const stopped = await holdToPromises(deps, accountId);
  const looked = await runRules(deps, accountId);
  const acted = await actByThemselves(deps, accountId);
  await deps.enqueue(deps.db, { name: 'raise-alerts', accountId });
  return { stopped, looked, acted };
}

/** Lets the rules of all accounts work, once a day: what the bounds of one day left is for the next. */
export async function lookDaily(deps: Deps): Promise<void> {
  for (const accountId of await listAccountsWithRules(deps.db))
    await deps.enqueue(deps.db, { name: 'run-rules', accountId });
}
