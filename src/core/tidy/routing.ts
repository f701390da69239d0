import { group } from 'd3-array';
import { compileAccountGate, covers, MATCH_TYPES, stops, type MatchType, type NegativeText } from '../gate';
import { normalise, words } from '../text';
import type { Conflict, ConflictsQuestion } from './conflicts';

/** A keyword, and how early its campaign is asked: 1 first. Null where its campaign has no priority. */
type Ranked = ConflictsQuestion['keywords'][number] & { turn?: number | null };

/**
 * Of conflicts those that are meant so (rules 4.1): the negative keeps its queries for another keyword, which stands in
 * another ad group, is narrower or of a campaign that is asked later, takes everything that the negative stops, and is open there; or
 * it leaves its own text to an exact keyword, which is.
 * @returns for each conflict the id of that keyword; null where there is none
 * @example findRouting([{ keywordId: 'k1', negativeId: 'n1', severity: 'narrowed', terms: 0, lost: null }], account, [{ id: 'k1', adGroupId: 'g1', text: 'free hive', match: 'broad' }, { id: 'k2', adGroupId: 'g2', text: 'free', match: 'phrase' }]) // ['k2']
 */
export function findRouting(
  conflicts: readonly Conflict[],
  account: ConflictsQuestion['account'],
  keywords: readonly Ranked[],
): (string | null)[] {
  const gate = compileAccountGate(account);
  const negativeOf = new Map(account.negatives.map((negative) => [negative.id, negative]));
  const keywordOf = new Map(keywords.map((keyword) => [keyword.id, keyword]));
  const byText = group(keywords, ({ text }) => normalise(text));
  const inTurn = byFirstWord(keywords);
  const isOpen = (text: string, { adGroupId }: Ranked) => gate.stoppers(text, adGroupId).length === 0;
  /** Whether a keyword gets a text; or exact negatives alone keep the text for an exact keyword of its own, which gets it. */
  const isOpenOrLeft = (text: string, other: Ranked) => {
    const stoppers = gate.stoppers(text, other.adGroupId);
    if (stoppers.length === 0) return true;
    const own = () =>
      byText
        .get(normalise(text))
        ?.some((one) => one.match === 'exact' && one.adGroupId !== other.adGroupId && isOpen(text, one));
    return stoppers.every((id) => negativeOf.get(id)!.match === 'exact') && (own() ?? false);
  };
  return conflicts.map(({ keywordId, negativeId }) => {
    const keyword = keywordOf.get(keywordId)!;
    const negative = negativeOf.get(negativeId)!;
    const takes = (other: Ranked) =>
      other.adGroupId !== keyword.adGroupId &&
      covers(other, negative) &&
      isOpenOrLeft(negative.text, other) &&
      isOpenOrLeft(other.text, other);
    const narrower = byText
      .get(normalise(negative.text))
      ?.find((other) => isNarrower(other.match, keyword.match) && takes(other));
    const seat = narrower ?? inTurn(negative.text).find((other) => isLater(other, keyword) && takes(other));
    return seat?.id ?? null;
  });
}

/**
 * Tells of a negative and a query that it stops whether a live keyword has the query all the same (rules 4.1): one that says what the
 * negative says, takes the query, and stands where nothing stops it.
 * @returns the id of that keyword; null where there is none
 * @example compileLeftOpen(account, [{ id: 'k2', adGroupId: 'g2', text: 'bee hive', match: 'exact' }])({ text: 'bee hive', match: 'exact' }, 'bee hive') // 'k2'
 */
export function compileLeftOpen(
  account: ConflictsQuestion['account'],
  keywords: ConflictsQuestion['keywords'],
): (negative: NegativeText, query: string) => string | null {
  const gate = compileAccountGate(account);
  const byText = group(keywords, ({ text }) => normalise(text));
  return (negative, query) => {
    const takes = ({ text, match, adGroupId }: ConflictsQuestion['keywords'][number]) =>
      stops({ text, match }, query) && gate.stoppers(query, adGroupId).length === 0;
    return byText.get(normalise(negative.text))?.find(takes)?.id ?? null;
  };
}

/** Whether a match type lets less through than another one. */
const isNarrower = (one: MatchType, other: MatchType) =>
  MATCH_TYPES.indexOf(one) > MATCH_TYPES.indexOf(other);

const isLater = ({ turn: one }: Ranked, { turn: other }: Ranked) =>
  one != null && other != null && one > other;

/** Keywords of campaigns with a priority that could take a text: their first word is one of it. */
function byFirstWord(keywords: readonly Ranked[]): (text: string) => Ranked[] {
  const known = group(
    keywords.filter(({ turn }) => turn != null),
    ({ text }) => words(text)[0] ?? '',
  );
  return known.size === 0
    ? () => []
    : (text) => [...new Set(words(text))].flatMap((word) => known.get(word) ?? []);
}
