import { createHash } from 'node:crypto';
import { tryWords, type Evenings, type Rule, type TriedWords, type TriedWordsOutcome } from '@/core';
import { worthById } from '../../compute/evidence/faults';
import { dayOf } from '../../compute/facts/facts';
import { progressOf } from '../../compute/progress';
import { campaignByAdGroup } from '../../compute/rules/rule-places';
import { loadRuleFacts, queryTextOf } from '../../compute/rules/term-facts';
import { judging } from '../../compute/rules/tried-rules';
import { requireAccountById } from '../../repositories/account/accounts';
import { findFittedWeeks, storeFittedWeeks, type FittedTo } from '../../repositories/decisions/fitted-weeks';
import type { Deps } from '../deps';
import { openWorkbench, type Open } from '../open-workbench';

/**
 * Tries rules on words on all days that are kept. The weeks are fitted once, and kept for the next trial: another threshold, or another
 * rule, makes them no other.
 */
export async function tryOnWeeks(
  { db }: Pick<Deps, 'db'>,
  open: Open,
  {
    rules,
    sentences,
    evenings,
  }: { rules: readonly TriedWords[]; sentences: readonly Rule[]; evenings: Evenings },
): Promise<TriedWordsOutcome> {
  const { account, snapshot } = open;
  const { factsOf, terms } = await loadRuleFacts(db, account.id, campaignByAdGroup(snapshot));
  const worth = worthById(snapshot, account);
  const to = fittedTo(open, worth);
  const kept = await findFittedWeeks(db, account.id, to);
  const tried = tryWords(
    factsOf('terms'),
    rules,
    evenings,
    {
      textOf: queryTextOf(terms),
      worthOf: (adGroup) => worth.get(adGroup) ?? NaN,
      lagDays: account.lagDays,
      judgesOf: (facts) => judging(snapshot, account, { facts, rules: sentences }),
      ...(kept && { weeks: kept }),
    },
    progressOf('trial'),
  );
  if (!kept) await storeFittedWeeks(db, account.id, to, tried.weeks);
  return tried;
}

/** Fits the weeks of an account ahead, so that nobody who tries a rule on words waits for that. Does nothing where they are kept already. */
export async function fitWeeks(deps: Deps, accountId: number): Promise<void> {
  const open = await openWorkbench(deps, await requireAccountById(deps.db, accountId));
  const { account, snapshot } = open;
  if (snapshot.dataDays === null) return;
  if (await findFittedWeeks(deps.db, accountId, fittedTo(open, worthById(snapshot, account)))) return;
  const evenings = { from: dayOf(snapshot.dataDays.from), to: dayOf(snapshot.dataDays.to) };
  await tryOnWeeks(deps, open, { rules: [], sentences: [], evenings });
}

function fittedTo({ account }: Open, worth: ReadonlyMap<number, number>): FittedTo {
  const said = JSON.stringify([FITTED_BY, account.lagDays, [...worth]]);
  return { factsVersion: account.factsVersion, text: createHash('sha256').update(said).digest('hex') };
}
/** Raised where weeks are fitted in another way: those that are kept are not those any more. */
const FITTED_BY = 1;
