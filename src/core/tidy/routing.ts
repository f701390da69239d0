import { group } from 'd3-array';
import { compileAccountGate, covers, MATCH_TYPES, type MatchType } from '../gate';
import { normalise } from '../text';
import type { Conflict, ConflictsQuestion } from './conflicts';

/**
 * Of conflicts those that are meant so (rules 4.1): the negative keeps its queries for another keyword, which stands in
 * another ad group, is narrower, takes everything that the negative stops, and is open there.
 * @returns for each conflict the id of that keyword; null where there is none
 * @example findRouting([{ keywordId: 'k1', negativeId: 'n1', severity: 'narrowed', terms: 0, lost: null }], account, [{ id: 'k1', adGroupId: 'g1', text: 'free hive', match: 'broad' }, { id: 'k2', adGroupId: 'g2', text: 'free', match: 'phrase' }]) // ['k2']
 */
export function findRouting(
  conflicts: readonly Conflict[],
  account: ConflictsQuestion['account'],
  keywords: ConflictsQuestion['keywords'],
): (string | null)[] {
  const gate = compileAccountGate(account);
  const negativeOf = new Map(account.negatives.map((negative) => [negative.id, negative]));
  const keywordOf = new Map(keywords.map((keyword) => [keyword.id, keyword]));
  const byText = group(keywords, ({ text }) => normalise(text));
  return conflicts.map(({ keywordId, negativeId }) => {
    const keyword = keywordOf.get(keywordId)!;
    const negative = negativeOf.get(negativeId)!;
    const seat = byText
      .get(normalise(negative.text))
      ?.find(
        (other) =>
          other.adGroupId !== keyword.adGroupId &&
          isNarrower(other.match, keyword.match) &&
          covers(other, negative) &&
          gate.stoppers(other.text, other.adGroupId).length === 0,
      );
    return seat?.id ?? null;
  });
}

/** Whether a match type lets less through than another one. */
const isNarrower = (one: MatchType, other: MatchType) =>
  MATCH_TYPES.indexOf(one) > MATCH_TYPES.indexOf(other);
