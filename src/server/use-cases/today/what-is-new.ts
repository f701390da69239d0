import { rollups, sum } from 'd3';
import { daysBetween, shiftDay, words } from '@/core';
import type { News } from '@/contracts/today';
import { derivedByKey, derivedLater } from '../../compute/derived';
import { queryTexts, type History } from '../../compute/history/history';
import { weighRows } from '../../compute/workbench';
import type { Account } from '../../repositories/account/accounts';
import { noteLook } from '../../repositories/decisions/looks';
import { loadNewTerms, type NewTerm } from '../../repositories/facts';
import { findDataDays } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { openSnapshotOf, openWorkbench, requireAccount, type Open } from '../open-workbench';
import { passOf } from '../sift/pass/open-pass';

const MOST_NAMED = 12;
/** Days that the first look tells of. */
const FIRST_LOOK = 7;

/**
 * Notes that a person looks at the account, and tells what came since the look before; at the first one, what came in the week
 * before.
 */
export async function lookAtToday(deps: Deps, slug: string, personId: number): Promise<News> {
  const account = await requireAccount(deps, slug);
  const dataDays = await findDataDays(deps.db, account.id);
  if (!dataDays) return NOTHING_NEW;
  const open = await openWorkbench(deps, account);
  const bad = wordsAtFault(open);
  const known = await noteLook(deps.db, account.id, personId, {
    dataTo: dataDays.to,
    words: bad.map(({ text }) => text),
  });
  const since = known.dataTo ?? shiftDay(dataDays.to, -FIRST_LOOK);
  const before = known.words && new Set(known.words);
  const turned = before ? bad.filter(({ text }) => !before.has(text)) : [];
  return { ...(await viewNews(deps, slug, since)), turnedBad: turned.slice(0, MOST_NAMED) };
}

/** The words that the pass names, surest first, with what they cost where they are at fault. */
function wordsAtFault(open: Open): News['words'] {
  if (open.account.dataVersion === 0) return [];
  return passOf(open).words.map(({ word, places }) => {
    const { terms, clicks, costMicros, conversions } = weighRows(open.snapshot, places[0]!.rows);
    return {
      text: word.ngram,
      terms,
      clicks: clicks ?? 0,
      costMicros: costMicros ?? 0,
      conversions: conversions ?? 0,
    };
  });
}

/** The words and terms that came after a day and already cost. Cached until facts change. */
export async function viewNews(deps: Deps, slug: string, since: string | null): Promise<News> {
  const account = await requireAccount(deps, slug);
  const dataDays = await findDataDays(deps.db, account.id);
  if (since === null || !dataDays || since >= dataDays.to || since < dataDays.from) return NOTHING_NEW;
  const { facts } = await openSnapshotOf(deps, account, account.windowDays);
  return found(keptFor(facts.history, since), async () => ({
    ...{ since, days: daysBetween(since, dataDays.to), turnedBad: [] },
    ...(await findNews(deps, account, facts.history, since)),
  }));
}

const NOTHING_NEW: News = {
  since: null,
  days: 0,
  terms: 0,
  costMicros: 0,
  words: [],
  first: [],
  turnedBad: [],
};

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
): Promise<Omit<News, 'since' | 'days' | 'turnedBad'>> {
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
