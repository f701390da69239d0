import { FIGURE_NAMES, memoised, orderBy, type Rule, type TermFacts } from '@/core';
import type { Db } from '../../db/connection';
import { readFacts, type FactColumns } from '../../repositories/columns/fact-columns';
import { readLateFigures, type LateColumns } from '../../repositories/columns/late-columns';
import { readTerms, TERM_KINDS, type AccountTerms } from '../../repositories/columns/term-columns';
import type { TermKind } from '../../repositories/facts';
import { listSearches } from '../../repositories/research/ideas';
import { progressOf } from '../progress';
import { textAt } from '../shared-columns';

/** What rules are about. */
export type About = 'terms' | 'keywords' | 'words' | 'campaigns' | 'lists';
export const aboutOf = ({ about }: Rule): About => about ?? 'terms';

/** What facts are put in order by. */
type By = Exclude<About, 'words' | 'lists'>;

/** Facts by term, keyword or campaign, and day, and the terms that they are of. */
export type RuleFacts = { factsOf(of: By): TermFacts; terms: TermsById };

/** Terms by the ids that facts have. */
export type TermsById = {
  keyOf(termId: number): string;
  kindOf(termId: number): TermKind;
};

/**
 * Reads facts and terms as of one moment, for rules to look at.
 * @param within no other days are read: where they end with the newest one, all that is known of them is known by now
 */
export function loadRuleFacts(
  db: Db,
  accountId: number,
  campaignOf: ReadonlyMap<number, number>,
  within?: { from: string; to: string },
): Promise<RuleFacts> {
  const onProgress = progressOf('days');
  return db.transaction(
    async (trx) => {
      const facts = await readFacts(trx, accountId, within, undefined, onProgress);
      const late = within ? undefined : await readLateFigures(trx, accountId);
      const terms = byId(await readTerms(trx, accountId));
      const factsOf = memoised(String, (of: By) => {
        const put = puttingIn(of, campaignOf);
        return byTermAndDay(put(facts), late && put(late));
      });
      return { factsOf, terms };
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}

/** What a query says; null for a product code, and what has no words. */
export const queryTextOf =
  ({ kindOf, keyOf }: TermsById) =>
  (termId: number): string | null =>
    kindOf(termId) === 'query' ? keyOf(termId) : null;

/** Searches a month by the key of a term, where a rule asks for them. */
export async function searchesFor(
  db: Db,
  accountId: number,
  rules: readonly Rule[],
): Promise<ReadonlyMap<string, number>> {
  const isAsked = rules.some(({ when }) => when.some(({ of }) => of === 'searches'));
  return isAsked ? listSearches(db, accountId) : new Map();
}

type Columns = { termId: Int32Array; keywordId: Int32Array; adGroupId: Int32Array };

/** What rules are about stands where they look for it. */
function puttingIn(of: By, campaignOf: ReadonlyMap<number, number>) {
  return <C extends Columns>(columns: C): C => {
    switch (of) {
      case 'terms':
        return columns;
      case 'keywords':
        return { ...columns, termId: columns.keywordId };
      case 'campaigns':
        return { ...columns, termId: columns.adGroupId.map((id) => campaignOf.get(id) ?? NO_CAMPAIGN) };
    }
  };
}
/** No rule is about it. */
const NO_CAMPAIGN = 0;

const WIDTH = FIGURE_NAMES.length;

/**
 * Puts facts in the order in which rules go through them.
 * @param late what later loads added: each difference is taken from its day, and comes when it was known
 */
export function byTermAndDay(facts: FactColumns, late?: LateColumns): TermFacts {
  const columns = late && late.count > 0 ? withLate(facts, late) : { ...facts, knownFrom: null };
  const { count, day, termId, adGroupId, keywordId, knownFrom, figures } = columns;
  const order = orderBy(termId, day);
  const inOrder = (column: Int32Array) => {
    const ordered = new Int32Array(count);
    for (let f = 0; f < count; f++) ordered[f] = column[order[f]!]!;
    return ordered;
  };
  let keywords: Int32Array | undefined;
  const ordered = new Float64Array(WIDTH * count);
  for (let f = 0; f < count; f++)
    for (let [to, from, i] = [WIDTH * f, WIDTH * order[f]!, 0]; i < WIDTH; i++)
      ordered[to + i] = figures[from + i]!;
  return {
    ...{ count, day: inOrder(day), termId: inOrder(termId), figures: ordered },
    adGroupId: inOrder(adGroupId),
    knownFrom: knownFrom && inOrder(knownFrom),
    /** few rules ask for it */
    get keywordId() {
      return (keywords ??= inOrder(keywordId));
    },
  };
}

function withLate(
  facts: FactColumns,
  late: LateColumns,
): Omit<TermFacts, 'knownFrom'> & { knownFrom: Int32Array } {
  const count = facts.count + 2 * late.count;
  const joined = (column: Int32Array, more: Int32Array, again: Int32Array) => {
    const all = new Int32Array(count);
    all.set(column.subarray(0, facts.count));
    all.set(more, facts.count);
    all.set(again, facts.count + late.count);
    return all;
  };
  const figures = new Float64Array(WIDTH * count);
  figures.set(facts.figures.subarray(0, WIDTH * facts.count));
  figures.set(
    late.figures.map((figure) => -figure),
    WIDTH * facts.count,
  );
  figures.set(late.figures, WIDTH * (facts.count + late.count));
  const { day, termId, adGroupId, keywordId, knownFrom } = late;
  return {
    ...{ count, figures, day: joined(facts.day, day, day), termId: joined(facts.termId, termId, termId) },
    ...{
      adGroupId: joined(facts.adGroupId, adGroupId, adGroupId),
      keywordId: joined(facts.keywordId, keywordId, keywordId),
      knownFrom: joined(facts.day, day, knownFrom),
    },
  };
}

function byId({ count, ids, kinds, keys }: AccountTerms): TermsById {
  const placeOf = new Int32Array((ids[count - 1] ?? 0) + 1).fill(-1);
  for (let t = 0; t < count; t++) placeOf[ids[t]!] = t;
  return {
    keyOf: (termId) => textAt(keys.bytes, keys.starts, placeOf[termId]!),
    kindOf: (termId) => TERM_KINDS[kinds[placeOf[termId]!]!]!,
  };
}
