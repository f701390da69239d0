import type * as v from 'valibot';
import { checkNegative, matchTexts, normalise, productCodeTest, compileGate } from '@/core';
import type { Weighed, WeighSchema } from '@/contracts/research';
import { statesOf } from '../../compute/research/idea-states';
import { contentOf } from '../../compute/research/sheet-content';
import { rowsOfTerm } from '../../compute/snapshot';
import {
  few,
  keywordsStoppedBy,
  keywordsThatConverted,
  protectedBy,
  touchedKeywords,
  weighRows,
} from '../../compute/workbench';
import { loadVerdicts } from '../../repositories/research/ideas';
import { findSheet } from '../../repositories/research/sheets';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';

type Asked = v.InferOutput<typeof WeighSchema>;

/**
 * What negatives would stop: open ideas of the sheet, and what ran in the account, wherever; and what they would hit there.
 * @throws Refusal when there is no such sheet
 */
export async function weighNegatives(
  deps: Deps,
  slug: string,
  sheetId: number,
  { texts, match, place }: Asked,
): Promise<Weighed> {
  const account = await requireAccount(deps, slug);
  const sheet = await findSheet(deps.db, account.id, sheetId);
  if (!sheet) throw new Refusal('There is no such research sheet.', 404);
  const open = await openWorkbench(deps, account);
  const content = await contentOf(deps.db, account.id, sheet);
  const states = statesOf(content, open, await loadVerdicts(deps.db, account.id, sheetId));
  const isOpen = Uint8Array.from(states, (state) => (state === 'open' ? 1 : 0));
  const { snapshot, draft } = open;
  const isStopped = new Set<number>();
  const isCode = productCodeTest(account.productCodePattern);
  const negatives = texts.map((raw) => ({ text: normalise(raw), match }));
  const allRows: number[] = [];
  const lines = negatives.map((negative) => {
    const gate = compileGate([negative]);
    let ideas = 0;
    for (const [i, { key }] of content.ideas.entries()) {
      if (isOpen[i] === 0 || !gate.isStopped(key)) continue;
      isOpen[i] = 0;
      ideas += 1;
    }
    const terms = Array.from(matchTexts(snapshot.served.table, negative)).filter((t) => !isStopped.has(t));
    for (const t of terms) isStopped.add(t);
    const rows = terms.flatMap((t) => rowsOfTerm(snapshot, t));
    allRows.push(...rows);
    return {
      ...{ text: negative.text, ideas, weight: weighRows(snapshot, rows) },
      refusal: checkNegative(negative, account.limits, isCode)?.message ?? null,
    };
  });
  const byText = negatives.flatMap((negative) => keywordsStoppedBy(open, negative));
  return {
    negatives: lines,
    keywords: touchedKeywords(open, draft.gate, byText, place, keywordsThatConverted(snapshot, allRows)),
    protected: few(protectedBy(open, negatives)),
  };
}
