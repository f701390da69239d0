import { compileAccountGate, type AccountShape } from '../gate';
import { words } from '../text';
import { compileReach } from './reach';

/** What was tried to show that negatives can go without any gate answering otherwise. */
export type Proof = {
  /** ad groups in which one of them is in force */
  adGroups: number;
  /** queries that were served, and those made of the negatives' own words, which one of them matches */
  real: number;
  generated: number;
  /** gates that would answer otherwise; none where all of them are redundant (rules 3) */
  differences: { query: string; adGroupId: string }[];
};

/** A word that no keyword holds: it stands beside a negative's words in queries that are made. */
const OTHER = 'zzz';

/**
 * Tries an account with and without some negatives, in each ad group where one of them is in force. A query that none of
 * them matches can not be answered otherwise, and is not counted.
 * @param removed ids of the negatives that would go
 * @param queries what was served
 * @example proveNeedless(account, new Set(['n1']), ['free hive', 'hive']).differences // [{ query: 'free hive', adGroupId: 'g1' }, { query: 'free', adGroupId: 'g1' }, { query: 'zzz free', adGroupId: 'g1' }, { query: 'free zzz', adGroupId: 'g1' }]
 */
export function proveNeedless(
  account: AccountShape,
  removed: ReadonlySet<string>,
  queries: Iterable<string>,
): Proof {
  const going = account.negatives.filter(({ id }) => removed.has(id));
  const goingGate = compileAccountGate({ ...account, negatives: going });
  const stayingGate = compileAccountGate({
    ...account,
    negatives: account.negatives.filter(({ id }) => !removed.has(id)),
  });
  const reach = compileReach(account);
  const adGroupsOf = new Map(going.map(({ id, place }) => [id, reach.adGroupsOf(place)]));
  const differences: Proof['differences'] = [];
  const tried = new Set<string>();
  /** @returns whether one of them matches the query */
  function attempt(query: string): boolean {
    if (tried.has(query)) return false;
    tried.add(query);
    const matching = goingGate.matching(query);
    const adGroups = new Set(matching.flatMap((id) => adGroupsOf.get(id)!));
    for (const adGroupId of adGroups)
      if (stayingGate.stoppers(query, adGroupId).length === 0) differences.push({ query, adGroupId });
    return matching.length > 0;
  }
  let real = 0;
  for (const query of queries) if (attempt(query)) real += 1;
  let generated = 0;
  for (const { text } of going) for (const query of queriesAround(text)) if (attempt(query)) generated += 1;
  return { adGroups: new Set([...adGroupsOf.values()].flat()).size, real, generated, differences };
}

/** Queries that hold the words of a negative: alone, with another word before, behind or between them, and turned round. */
function queriesAround(text: string): string[] {
  const own = words(text);
  const joined = own.join(' ');
  const between = own.length > 1 ? [[own[0]!, OTHER, ...own.slice(1)].join(' ')] : [];
  return [joined, `${OTHER} ${joined}`, `${joined} ${OTHER}`, ...between, own.toReversed().join(' ')];
}
