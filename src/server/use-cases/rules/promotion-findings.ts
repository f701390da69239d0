import { counted, type Change, type RuleAction } from '@/core';
import type { StoredFinding } from '../../repositories/decisions/findings';
import type { Open } from '../open-workbench';
import { promotionOf } from '../promotion/plan-promotions';

type Promotes = Extract<RuleAction, { do: 'promote' }>;

/** Whether a term that a rule promotes still lacks something: a keyword, a negative, or the seat for them. */
export function waitsForPromotion(open: Open, then: Promotes, one: StoredFinding): boolean {
  const { changes, lacksSeat } = ofPromotion(open, then, one);
  return changes.length > 0 || lacksSeat;
}

/** A term that a rule promotes: what a yes puts in the tray, and what would become of it in words. */
export function ofPromoted(
  open: Open,
  then: Promotes,
  one: StoredFinding,
): { changes: Change[]; place: string } {
  const { changes } = ofPromotion(open, then, one);
  return { changes, place: sayBecomes(changes) };
}

const ofPromotion = (open: Open, { atSource }: Promotes, { term, ranIn }: StoredFinding) =>
  promotionOf(open, { term, adGroupIds: ranIn.map(String), atSource });

function sayBecomes(changes: readonly Change[]): string {
  if (changes.length === 0) return 'nowhere yet (choose an exact seat in Promote)';
  const keywords = changes.filter(({ kind }) => kind === 'add keyword' || kind === 'run keyword');
  const negatives = changes.length - keywords.length;
  const [first] = keywords;
  if (first === undefined) return `its keyword, with ${counted(negatives, 'negative')}`;
  const seat =
    first.kind === 'add keyword' ? `${first.match} in ${first.adGroup}` : 'a keyword that runs again';
  const more = keywords.length === 1 ? '' : ` and ${keywords.length - 1} more`;
  return `${seat}${more}${negatives === 0 ? '' : `, with ${counted(negatives, 'negative')}`}`;
}
