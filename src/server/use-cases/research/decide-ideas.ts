import type * as v from 'valibot';
import type { DecidedSchema, DecideIdeasSchema } from '@/contracts/research';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { setIdeaVerdicts } from '../../repositories/research/ideas';
import { findSheet, updateSheet } from '../../repositories/research/sheets';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { keysHolding } from './view-remainders';

/**
 * Keeps ideas, drops them, or opens them again.
 * @returns what each had before, by verdict, so that it can be set back
 * @throws Refusal when there is no such sheet
 */
export async function decideIdeas(
  deps: Deps,
  slug: string,
  personId: number,
  sheetId: number,
  { keys, holding, verdict }: v.InferOutput<typeof DecideIdeasSchema>,
): Promise<v.InferOutput<typeof DecidedSchema>> {
  const { id } = await requireAccount(deps, slug);
  const held = holding ? await keysHolding(deps, slug, sheetId, holding) : [];
  return deps.db.transaction(async (trx) => {
    if (!(await findSheet(trx, id, sheetId, { lock: true })))
      throw new Refusal('There is no such sheet any more. Nothing was changed.', 404);
    const all = [...new Set([...keys, ...held])];
    const before = await setIdeaVerdicts(trx, id, sheetId, personId, all, verdict);
    if (before.length > 0) {
      await updateSheet(trx, id, sheetId);
      await raiseDecisionVersion(trx, id);
    }
    const had = [null, 'kept', 'dropped'] as const;
    const was = had.map((one) => ({
      ...{ verdict: one, keys: before.filter((idea) => idea.was === one).map(({ key }) => key) },
    }));
    return { was: was.filter(({ keys: some }) => some.length > 0) };
  });
}
