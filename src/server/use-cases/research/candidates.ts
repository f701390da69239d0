import type * as v from 'valibot';
import { checkNegative, matchTexts, productCodeTest, type MatchType, type NegativeText } from '@/core';
import type { Candidate, CandidatesQuerySchema, CandidatesView } from '@/contracts/candidates';
import { foldCandidates, type FoldedCandidate } from '../../compute/research/fold-candidates';
import { hurtsOf } from '../../compute/research/hurts';
import { ideaTableOf } from '../../compute/research/sheet-content';
import { rowsOfTerm } from '../../compute/snapshot';
import { weighRows } from '../../compute/workbench';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';
import { lookAt } from './look-at';

const EVERYTHING = { searches: 0, typed: '', holds: 'none' } as const;
const ACCOUNT = { kind: 'account', id: null } as const;

/**
 * The ready negatives of a sheet that nobody decided on yet, forms of the same words as one: what each would stop in the account and in the
 * sheet, and what it would hit. Those that hit something come last, and are for a person to turn on.
 * @throws Refusal when there is no such sheet
 */
export async function viewCandidates(
  deps: Deps,
  slug: string,
  sheetId: number,
  { match, source, most }: v.InferOutput<typeof CandidatesQuerySchema>,
): Promise<CandidatesView> {
  const look = await lookAt(deps, slug, sheetId, { ...EVERYTHING, source }, ['open']);
  const { open, sheet, content, states, passes, isShown, isCandidate } = look;
  const ready = content.ideas.filter((_, i) => isCandidate[i] && passes[i] === 1 && states[i] === 'open');
  const ideaTable = ideaTableOf(content);
  const ideasOf = (negative: NegativeText) => matchTexts(ideaTable, negative).filter((i) => isShown[i] === 1);
  const candidates = foldCandidates(ready).map((folded) => weigh(open, folded, match, ideasOf));
  candidates.sort(
    (a, b) =>
      Number(hits(a)) - Number(hits(b)) ||
      (b.weight.costMicros ?? 0) - (a.weight.costMicros ?? 0) ||
      b.ideas - a.ideas ||
      (a.text < b.text ? -1 : 1),
  );
  return {
    version: sheet.version,
    candidates: candidates.slice(0, most),
    total: candidates.length,
    stopped: states.filter((state, i) => isCandidate[i] && passes[i] === 1 && state.startsWith('stopped'))
      .length,
  };
}

const hits = ({ keywords, protected: terms, refusal }: Candidate) =>
  keywords.length > 0 || terms.count > 0 || refusal !== null;

function weigh(
  open: Open,
  { forms, sources }: FoldedCandidate,
  match: MatchType,
  ideasOf: (negative: NegativeText) => Uint32Array,
): Candidate {
  const { snapshot, account } = open;
  const negatives = forms.map((text): NegativeText => ({ text, match }));
  const terms = new Set(negatives.flatMap((negative) => [...matchTexts(snapshot.served.table, negative)]));
  const rows = [...terms].flatMap((term) => rowsOfTerm(snapshot, term));
  const isCode = productCodeTest(account.productCodePattern);
  return {
    ...{ text: forms[0]!, forms, sources },
    ideas: new Set(negatives.flatMap((negative) => [...ideasOf(negative)])).size,
    weight: weighRows(snapshot, rows),
    ...hurtsOf(open, negatives, ACCOUNT, rows),
    refusal: checkNegative(negatives[0]!, account.limits, isCode)?.message ?? null,
  };
}
