import { findThemes, type Figures } from '@/core';
import type {
  PassProgress,
  PlotAnswer,
  SiftFilters,
  TermLine,
  TermsPage,
  TermsQuery,
  ThemesAnswer,
  WordsAnswer,
  WordsQuery,
} from '@/contracts/sift';
import { locationNamer } from '../../compute/locations/name-locations';
import { weighEvidence } from '../../compute/evidence/evidence';
import { findLines, queriesOf, type Found } from '../../compute/sift/lines';
import { orderLines, type Ordered, type OrderedLine } from '../../compute/sift/order';
import { foldedOf, type PassKnown } from '../../compute/sift/pick-terms';
import { plotTerms } from '../../compute/sift/plot';
import { viewIndex, viewsOf } from '../../compute/sift/views';
import { faultOf } from '../../compute/evidence/faults';
import { findWords } from '../../compute/sift/words';
import { termSums } from '../../compute/term-sums';
import { keyAt, kindAt, lastDayAt, termAt } from '../../compute/window-columns';
import { costliestOf, rowsOfTerm } from '../../compute/snapshot';
import { countNotes } from '../../repositories/decisions/notes';
import { findPass, listLookedAt } from '../../repositories/decisions/passes';
import type { Deps } from '../deps';
import { sayDays } from '@/contracts/days';
import { besideOf, besideOfAll } from '../../compute/sift/beside';
import { openSnapshotOf, openWorkbench, requireAccount, type Open } from '../open-workbench';
import { derivedByKey, derivedFrom, keyBySchema } from '../../compute/derived';
import { figureAt, COLUMN } from '../../compute/figure-columns';
import { FiltersSchema } from '@/contracts/sift';
import { WordsQuerySchema } from '@/contracts/sift';

const MOST_THEMES = 200;
/** Themes are sought among the costliest terms without return. */
const MOST_THEME_TERMS = 20_000;

/** A page of search terms in a view of Sift, with the counts of all views under the same filters. */
export async function listTerms(deps: Deps, slug: string, query: TermsQuery): Promise<TermsPage> {
  const { open, pass, found } = await find(deps, slug, query);
  const ordered = order(open, found, query);
  const { costMicros, unreportedMicros } = termSums(open.snapshot);
  const notes = await countNotes(deps.db, open.account.id, 'term');
  const end = Math.min(ordered.length, query.offset + query.most);
  const beside = query.beside && (await openSnapshotOf(deps, open.account, query.beside));
  const lines: TermLine[] = [];
  for (let i = query.offset; i < end; i++) {
    const line = ordered.at(i);
    lines.push({
      ...toTermLine(open, line, pass, notes),
      beside: beside ? besideOf(open.snapshot, beside, line.term) : null,
    });
  }
  return {
    total: ordered.length,
    beside: beside
      ? once(found, `beside ${sayDays(query.beside!)}`, () => besideOfAll(open.snapshot, beside, found))
      : null,
    ...{ counts: found.counts, sums: found.sums, costMicros, unreportedMicros },
    pass: pass && progressOf(open, pass),
    offset: query.offset,
    lines,
  };
}

/**
 * The next line of the view that nobody looked at in this pass, after an index in its order; from the top again after
 * the last.
 * @returns its index; null when all were looked at
 */
export async function findUnseen(
  deps: Deps,
  slug: string,
  query: TermsQuery,
): Promise<{ index: number | null }> {
  const { open, pass, found } = await find(deps, slug, query);
  const ordered = order(open, found, query);
  const { ids } = open.snapshot.terms;
  for (let step = 1; step <= ordered.length; step++) {
    const index = (query.offset + step) % ordered.length;
    if (!pass?.seen.has(ids[ordered.at(index).term]!)) return { index };
  }
  return { index: null };
}

/** The words of the terms that a view shows, in rank. */
export async function listWords(deps: Deps, slug: string, query: WordsQuery): Promise<WordsAnswer> {
  // Choosing an n-gram narrows the terms, not the words it was chosen from.
  const { open, found } = await find(deps, slug, { ...query, holding: '' });
  const lines = once(found, `words ${keyBySchema(WordsQuerySchema, query)}`, () =>
    findWords(open, found.lines, open.account, query),
  );
  return { lines, neutral: open.neutralWords.length, since: open.snapshot.history.days?.from ?? null };
}

/** Themes of spend without return in the terms that a view shows (rules 7.7). */
export async function listThemes(deps: Deps, slug: string, filters: SiftFilters): Promise<ThemesAnswer> {
  const { open, found } = await find(deps, slug, { ...filters, holding: '' });
  const { snapshot } = open;
  const neutral = new Set(open.neutralWords);
  const notes = await countNotes(deps.db, open.account.id, 'theme');
  const terms = () =>
    queriesOf(open, found.lines)
      .sort((a, b) => (b.costMicros ?? 0) - (a.costMicros ?? 0))
      .slice(0, MOST_THEME_TERMS)
      .map((term) => ({ ...term, text: keyAt(snapshot.terms, term.term) }));
  return {
    lines: once(found, 'themes', () => findThemes(terms()))
      .filter(({ words }) => !words.every((word) => neutral.has(word)))
      .slice(0, MOST_THEMES)
      .map(({ words, terms: holding, clicks, costMicros }) => ({
        ...{ words, clicks, terms: holding.length, costMicros: costMicros ?? 0 },
        notes: notes.get(words.join(' ')) ?? 0,
        fault: faultOf(snapshot, open.account, words.flatMap(foldedOf(snapshot).formsOf)),
      })),
  };
}

/** Terms of a view on clicks against conversions. */
export async function plotView(deps: Deps, slug: string, filters: SiftFilters): Promise<PlotAnswer> {
  const { open, found } = await find(deps, slug, { ...filters, region: '' });
  return once(found, 'plot', () => plotTerms(open, found.lines, open.account));
}

async function find(deps: Deps, slug: string, filters: SiftFilters) {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account, filters.days);
  const pass = await knowPass(deps, account.id);
  return { open, pass, found: findOnce(open, filters, pass) };
}

export async function knowPass(deps: Deps, accountId: number): Promise<PassKnown | null> {
  const pass = await findPass(deps.db, accountId);
  if (!pass) return null;
  const seen = new Set(await listLookedAt(deps.db, accountId, pass.id));
  return { newestTermId: pass.newestTermId, seen };
}

type Asked = { filters: SiftFilters; pass: PassKnown | null };
const MOST_REMEMBERED = 4;

const foundBefore = derivedByKey(
  ({ filters, pass }: Asked) => `${keyBySchema(FiltersSchema, filters)} ${pass?.newestTermId}`,
  (open: Open, { filters, pass }) => findLines(open, filters, open.account, pass),
  MOST_REMEMBERED,
);

/** All lines of a view. Cached per workbench, filters and pass, so that paging through a view finds them once. */
export function findOnce(open: Open, filters: SiftFilters, pass: PassKnown | null): Found {
  if (filters.trait === 'unseen') return findLines(open, filters, open.account, pass); // differs each time
  return foundBefore(open, { filters, pass });
}

/** Answers made from the lines of a view, by name: the next page or the next person asks for them again. */
const madeOf = derivedFrom((_: Found) => new Map<string, unknown>());

function once<T>(found: Found, name: string, make: () => T): T {
  const made = madeOf(found);
  if (!made.has(name)) made.set(name, make());
  return made.get(name) as T;
}

const order = ({ snapshot, account }: Open, found: Found, { sort, direction }: TermsQuery): Ordered =>
  once(found, `order ${sort} ${direction}`, () =>
    orderLines(snapshot, found.lines, { sort, direction }, account),
  );

/** A line as the screen shows it. */
function toTermLine(
  open: Open,
  { term: t, figures }: OrderedLine,
  pass: PassKnown | null,
  notes: ReadonlyMap<string, number>,
): Omit<TermLine, 'beside'> {
  const { snapshot, protectedOwn, names } = open;
  const { rows, served, keyword } = snapshot;
  const term = termAt(snapshot.terms, t);
  const [first, last] = [served.rowStarts[t]!, served.rowStarts[t + 1]!];
  const costliest = costliestOf(snapshot, rowsOfTerm(snapshot, t));
  const by = keyword.get(String(rows.keywordId[costliest]!));
  const adGroup = served.adGroups[served.adGroupOf[costliest]!]!;
  const { impressions, clicks, costMicros, conversions, valueMicros }: Figures = figures;
  return {
    id: term.id,
    raw: term.raw,
    words: term.kind === 'query' ? term.key.split(' ') : [],
    kind: term.kind,
    servedBy: { keyword: by?.text || null, match: by?.match ?? 'unknown' },
    others: last - first - 1,
    isProtected: snapshot.hasConverted.has(term.key) || protectedOwn.some((p) => p.text === term.key),
    isSeen: pass?.seen.has(term.id) ?? false,
    notes: notes.get(term.key) ?? 0,
    locations: locationNamer(open.saidOfLocations)(term.key).map(({ name, kind }) => ({ name, kind })),
    evidence: weighEvidence(snapshot, open.account, { term: t, figures }),
    campaign: names.campaign(adGroup.campaignId) ?? '',
    adGroup: names.adGroup(adGroup.id) ?? '',
    lastDay: lastDayAt(rows, latest(rows.lastDay, first, last)),
    ...{ impressions, clicks, costMicros, conversions, valueMicros },
  };
}

function latest(days: Uint32Array, first: number, last: number): number {
  let at = first;
  for (let r = first; r < last; r++) if (days[r]! > days[at]!) at = r;
  return at;
}

/** Terms that were looked at or decided, of all that nothing stops yet in the account as it stands. */
const progressOf = derivedByKey(
  ({ seen }: PassKnown) => String(seen.size), // within a pass they only become more
  findProgress,
  1,
);

function findProgress(open: Open, { seen }: PassKnown): PassProgress {
  const { snapshot } = open;
  const { ofTerm } = viewsOf(open);
  const { figures } = termSums(snapshot);
  const progress: PassProgress = { terms: 0, ofTerms: 0, costMicros: 0, ofCostMicros: 0 };
  const [remaining, already] = [1 << viewIndex('remaining'), 1 << viewIndex('already')];
  for (let t = 0; t < snapshot.terms.count; t++) {
    const piles = ofTerm[t]!;
    if (piles === already || piles === 0 || kindAt(snapshot.terms, t) === 'unreported') continue;
    const cost = figureAt(figures, t, COLUMN.costMicros) || 0;
    progress.ofTerms += 1;
    progress.ofCostMicros += cost;
    if ((piles & remaining) !== 0 && !seen.has(snapshot.terms.ids[t]!)) continue;
    progress.terms += 1;
    progress.costMicros += cost;
  }
  return progress;
}
