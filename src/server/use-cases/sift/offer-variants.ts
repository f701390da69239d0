import type { Days } from '@/contracts/days';
import {
  compileVocabulary,
  offerVariants as offersOf,
  type NegativeText,
  type Place,
  type Vocabulary,
} from '@/core';
import type { VariantsAnswer } from '@/contracts/hand';
import { costAt, keyAt, kindAt } from '../../compute/window-columns';
import { protectedBy, weighRows } from '../../compute/workbench';
import { rowsOfTerm, type Snapshot } from '../../compute/snapshot';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { derivedFrom } from '../../compute/derived';

const MOST = 12;

/**
 * The variants of a negative that occur in the window and would stop something at its place that is still open
 * (rules 8), costliest first. Those that would stop a protected term are left out.
 */
export async function offerVariants(
  deps: Deps,
  slug: string,
  { negative, place, days }: { negative: NegativeText; place: Place; days?: Days },
): Promise<VariantsAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const { snapshot, draft } = open;
  const { served, rows } = snapshot;
  const isOpen = (row: number) => draft.gate.stopCount(row) === 0;
  const inside = new Set(
    draft.gate.within(Array.from({ length: rows.count }, (_, r) => r).filter(isOpen), place),
  );
  const costMicros = new Float64Array(snapshot.terms.count);
  for (const row of inside) costMicros[rows.termOf[row]!]! += costAt(rows, row);
  const offers = offersOf(negative, served.table, costMicros, vocabularyOf(snapshot)).flatMap(
    ({ text, how, terms }) => {
      const stopped = terms.flatMap((t) => rowsOfTerm(snapshot, t)).filter((row) => inside.has(row));
      const isSafe = protectedBy(open, [{ text, match: negative.match }]).length === 0;
      return stopped.length > 0 && isSafe ? [{ text, how, weight: weighRows(snapshot, stopped) }] : [];
    },
  );
  return { negative, place, offers: offers.slice(0, MOST) };
}

/** Words and joined words of a window, from which variants are made. */
export const vocabularyOf: (snapshot: Snapshot) => Vocabulary = derivedFrom(({ terms }) => {
  const texts: string[] = [];
  for (let t = 0; t < terms.count; t++) if (kindAt(terms, t) === 'query') texts.push(keyAt(terms, t));
  return compileVocabulary(texts);
});
