import { bidOfRule, formatAmount, smallestUnitOf, type Change, type Rule } from '@/core';
import { judgingAdGroups } from '../../compute/rules/tried-rules';
import type { StoredFinding } from '../../repositories/decisions/findings';
import type { Open } from '../open-workbench';

/** Whether a keyword that a rule found still runs, is in no change of the tray, and can get what the rule wants. */
export function waitsForKeyword(open: Open, rule: Rule, { term: id, sums }: StoredFinding): boolean {
  if (!open.snapshot.liveKeyword.has(id)) return false;
  if (open.drafted.some(({ change }) => 'keywordId' in change && change.keywordId === id)) return false;
  return rule.then.do !== 'set bid' || changeOf(open, rule, id, sums) !== null;
}

/** A keyword that a rule found: what a yes puts in the tray, and what would become of it in words. */
export function ofKeyword(
  open: Open,
  rule: Rule,
  { term: id, sums }: StoredFinding,
): { term: string; changes: Change[]; place: string } {
  const change = changeOf(open, rule, id, sums);
  return {
    term: sayKeyword(open, id),
    changes: change ? [change] : [],
    place: sayBecomes(open, change),
  };
}

/** How findings call a keyword. */
export const sayKeyword = ({ names }: Pick<Open, 'names'>, id: string): string =>
  names.keyword?.(id) ?? 'a keyword that is gone';

function changeOf(
  { snapshot, account }: Open,
  { then }: Rule,
  keywordId: string,
  { clicks, conversions }: StoredFinding['sums'],
): Change | null {
  if (then.do === 'pause') return { kind: 'pause keyword', keywordId };
  const keyword = snapshot.liveKeyword.get(keywordId);
  if (then.do !== 'set bid' || !keyword || keyword.bidMicros === null) return null;
  const bidMicros = bidOfRule(then, {
    sums: { clicks: clicks ?? NaN, conversions: conversions ?? NaN },
    judge: judgingAdGroups(snapshot, account)(keyword.adGroupId),
    wasMicros: keyword.bidMicros,
    unitMicros: smallestUnitOf(account.currency),
  });
  return bidMicros === null ? null : { kind: 'set bid', keywordId, bidMicros, wasMicros: keyword.bidMicros };
}

function sayBecomes({ account: { currency } }: Open, change: Change | null): string {
  if (change?.kind === 'pause keyword') return 'paused';
  if (change?.kind !== 'set bid') return 'nothing: the rule only tells';
  return `bid ${formatAmount(change.bidMicros, currency)}, was ${formatAmount(change.wasMicros, currency)}`;
}
