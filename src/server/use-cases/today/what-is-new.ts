import { rollups, sum } from 'd3';
import { daysBetween, shiftDay, words } from '@/core';
import type { News } from '@/contracts/today';
import { derivedByKey, derivedLater } from '../../compute/derived';
import { queryTexts, type History } from '../../compute/history/history';
import type { Account } from '../../repositories/account/accounts';
import { noteLook } from '../../repositories/decisions/looks';
import { loadNewTerms, type NewTerm } from '../../repositories/facts';
import { findDataDays } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { openSnapshotOf, requireAccount } from '../open-workbench';

const MOST_NAMED = 12;
/** Days that the first look tells of. */
const FIRST_LOOK = 7;

/**
 * Notes that a person looks at the account.
 * @returns the last day that was known at the look before; at the first one that of a week before; null without data
 */
export async function lookAtToday(deps: Deps, slug: string, personId: number): Promise<string | null> {
  const { id } = await requireAccount(deps, slug);
  const dataDays = await findDataDays(deps.db, id);
  if (!dataDays) return null;
  const known = await noteLook(deps.db, id, personId, dataDays.to);
  return known ?? shiftDay(dataDays.to, -FIRST_LOOK);
}

/** The words and terms that came after a day and already cost. Cached until facts change. */
export async function viewNews(deps: Deps, slug: string, since: string | null): Promise<News> {
  const account = await requireAccount(deps, slug);
  const dataDays = await findDataDays(deps.db, account.id);
  if (since === null || !dataDays || since >= dataDays.to || since < dataDays.from) return NOTHING_NEW;
  const { facts } = await openSnapshotOf(deps, account, account.windowDays);
  return found(keptFor(facts.history, since), async () => ({
    ...{ since, days: daysBetween(since, dataDays.to) },
    ...(await findNews(deps, account, facts.history, since)),
  }));
}

const NOTHING_NEW: News = { since: null, days: 0, terms: 0, costMicros: 0, words: [], first: [] };

const keptFor = derivedByKey(
  (since: string) => since,
  (_: History, since: string) => ({ since }),
  4,
);
const found = derivedLater<{ since: string }, News>();

async function findNews(
  deps: Deps,
  account: Account,
  history: History,
  since: string,
): Promise<Omit<News, 'since' | 'days'>> {
  const terms = await loadNewTerms(deps.db, account.id, since);
  const fresh = new Set(terms.map(({ text }) => text));
  const known = new Set<string>();
  for (const text of queryTexts(history))
    if (!fresh.has(text)) for (const word of words(text)) known.add(word);
  const byWord = rollups(
    terms.flatMap((term) =>
      [...new Set(words(term.text))].flatMap((word) => (known.has(word) ? [] : [{ word, term }])),
    ),
    (of) => addUp(of.map(({ term }) => term)),
    ({ word }) => word,
  );
  const cost = (of: { costMicros: number }) => of.costMicros > 0;
  return {
    ...{ terms: terms.length, costMicros: sum(terms, (term) => term.costMicros) },
    words: byWord
      .map(([text, figures]) => ({ text, ...figures }))
      .filter(cost)
      .sort((a, b) => b.costMicros - a.costMicros)
      .slice(0, MOST_NAMED),
    first: terms
      .filter(cost)
      .slice(0, MOST_NAMED)
      .map((term) => ({ ...term, terms: 1 })),
  };
}

const addUp = (terms: readonly NewTerm[]) => ({
  terms: terms.length,
  clicks: sum(terms, (term) => term.clicks),
  costMicros: sum(terms, (term) => term.costMicros),
  conversions: sum(terms, (term) => term.conversions),
});
