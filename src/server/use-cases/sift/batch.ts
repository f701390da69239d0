import type { Days } from '@/contracts/days';
import type { BatchAnswer, BatchWay, Selection, WantedVerdict } from '@/contracts/decisions';
import type { DraftOutcome } from '@/contracts/tray';
import { termAt } from '../../compute/window-columns';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { Refusal, type Deps } from '../deps';
import { draftChanges } from '../tray/draft-changes';
import { openWorkbench, requireAccount } from '../open-workbench';
import { giveVerdicts } from './give-verdicts';
import { markedTerms, planBatch, type BatchQuestion } from './plan-batch';

/** What stopping the marked terms together would do, each as exact or by the smallest set that covers them. */
export async function weighBatch(deps: Deps, slug: string, question: BatchQuestion): Promise<BatchAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), question.days);
  return (await planBatch(deps, open, question)).answer;
}

/**
 * Puts the changes of a batch in the tray, as they were weighed.
 * @throws Refusal when there are too many, or none
 */
export async function draftBatch(
  deps: Deps,
  slug: string,
  personId: number,
  question: BatchQuestion,
): Promise<DraftOutcome[]> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), question.days);
  const { answer, changes } = await planBatch(deps, open, question);
  if (answer.refusal) throw new Refusal(answer.refusal, 409);
  const why = sayWhy(question.way, answer.marked.terms);
  return draftChanges(
    deps,
    slug,
    personId,
    changes.map((change) => ({ change, why })),
  );
}

/**
 * Keeps the marked terms open, sets them aside, or takes either back.
 * @returns ids of the terms whose verdict changed, with which it can be undone
 */
export async function setVerdicts(
  deps: Deps,
  slug: string,
  personId: number,
  { selection, verdict, days }: { selection: Selection; verdict: WantedVerdict; days?: Days },
): Promise<{ said: string; changed: number[] }> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const { terms } = open.snapshot;
  const marked = (await markedTerms(deps, open, selection))
    .map((t) => termAt(terms, t))
    .filter(({ kind }) => kind === 'query' || (kind === 'code' && verdict.is !== 'kept'))
    .map(({ id, key, raw }) => ({ id, key, raw }));
  if (marked.length === 0) throw new Refusal('None of these terms can be kept or set aside.');
  const { id } = open.account;
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const given = await giveVerdicts(trx, id, marked, {
      ...{ verdict, personId, afterDay: open.snapshot.dataDays!.to },
    });
    await raiseDecisionVersion(trx, id);
    const idOf = new Map(marked.map((term) => [term.key, term.id]));
    return { said: given.said, changed: given.changed.map((key) => idOf.get(key)!) };
  });
}

function sayWhy({ by }: BatchWay, terms: number): string {
  switch (by) {
    case 'each':
      return `one of ${terms} terms marked together`;
    case 'few':
      return `smallest set for ${terms} terms marked together`;
    case 'like':
      return `for ${terms} terms marked together, and their like`;
  }
}
