import { group } from 'd3';
import type * as v from 'valibot';
import {
  checkNegative,
  compileVocabulary,
  matchTexts,
  normalise,
  productCodeTest,
  variants,
  type NegativeText,
} from '@/core';
import type { IdeaState, Weighed, WeighSchema } from '@/contracts/research';
import { derivedFrom } from '../../compute/derived';
import { hurtsOf } from '../../compute/research/hurts';
import { ideaTableOf, type SheetContent } from '../../compute/research/sheet-content';
import { rowsOfTerm } from '../../compute/snapshot';
import { protectedBy, weighRows } from '../../compute/workbench';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';
import { vocabularyOf } from '../sift/offer-variants';
import { lookAt } from './look-at';

type Asked = v.InferOutput<typeof WeighSchema>;

/** Forms of one text that are offered at most. */
const MOST_FORMS = 12;
const EVERYTHING = { searches: 0, typed: '', holds: 'none' } as const;

/**
 * What negatives would stop: open ideas of the sheet, ideas that people keep, and what ran in the account, wherever; and what they would hit there.
 * @throws Refusal when there is no such sheet
 */
export async function weighNegatives(
  deps: Deps,
  slug: string,
  sheetId: number,
  { texts, withForms, match, place }: Asked,
): Promise<Weighed> {
  const look = await lookAt(deps, slug, sheetId, EVERYTHING, ['open', 'kept']);
  const { account, open, content, states, isShown } = look;
  const { snapshot } = open;
  const asked = [...new Set(texts.map(normalise))].map((text): NegativeText => ({ text, match }));
  const forms = withForms ? formsOf(asked, content, open) : [];
  const ideaTable = ideaTableOf(content);
  const isCounted = Uint8Array.from(isShown);
  const counts = (of: IdeaState) => (i: number) => states[i] === of;
  const isStopped = new Set<number>();
  const isCode = productCodeTest(account.productCodePattern);
  const allRows: number[] = [];
  const lines = [...asked, ...forms].map((negative, at) => {
    const ideas = Array.from(matchTexts(ideaTable, negative)).filter((i) => isCounted[i] === 1);
    for (const i of ideas) isCounted[i] = 0;
    const terms = Array.from(matchTexts(snapshot.served.table, negative)).filter((t) => !isStopped.has(t));
    for (const t of terms) isStopped.add(t);
    const rows = terms.flatMap((t) => rowsOfTerm(snapshot, t));
    allRows.push(...rows);
    return {
      ...{ text: negative.text, isForm: at >= asked.length },
      ...{ ideas: ideas.filter(counts('open')).length, kept: ideas.filter(counts('kept')).length },
      ...{ weight: weighRows(snapshot, rows) },
      refusal: checkNegative(negative, account.limits, isCode)?.message ?? null,
    };
  });
  const negatives = lines
    .filter(({ isForm, ideas, weight }) => !isForm || ideas > 0 || weight.terms > 0)
    .map(({ text }): NegativeText => ({ text, match }));
  return {
    negatives: lines.filter(({ text }) => negatives.some((one) => one.text === text)),
    ...hurtsOf(open, negatives, place, allRows),
  };
}

/** Other forms of the words of negatives that occur in the sheet or in the account, those that would stop a protected term left out. */
function formsOf(asked: readonly NegativeText[], content: SheetContent, open: Open): NegativeText[] {
  const known = new Set(asked.map(({ text }) => text));
  const vocabularies = [sheetVocabularyOf(content), vocabularyOf(open.snapshot)];
  const found = asked.flatMap(({ text, match }) =>
    [
      ...group(
        vocabularies.flatMap((vocabulary) => variants(text, vocabulary)),
        (one) => one.text,
      ).keys(),
    ]
      .slice(0, MOST_FORMS)
      .map((form): NegativeText => ({ text: form, match })),
  );
  return found.filter((form) => {
    if (known.has(form.text) || protectedBy(open, [form]).length > 0) return false;
    known.add(form.text);
    return true;
  });
}

const sheetVocabularyOf = derivedFrom(({ ideas }: SheetContent) =>
  compileVocabulary(ideas.map(({ key }) => key)),
);
