import {
  checkNegative,
  describePlace,
  productCodeTest,
  STANDIN_LIMITS,
  type MatchType,
  type NegativeText,
  type Place,
} from '@/core';
import type { NegativeInPlace } from '@/contracts/common';
import type { ChoiceAnswer, MatchChoice, PlaceChoice } from '@/contracts/sift';
import { few, keywordsStoppedBy, protectedBy, touchedKeywords, weighRows } from '../compute/workbench';
import { costAt, figuresAt, lastDayAt, termAt } from '../compute/window-columns';
import { Refusal, type Deps } from './deps';
import { openWorkbench, requireAccount, type Open } from './open-workbench';

/** As they are read: the usual choice first, the whole term last. */
const IN_ORDER: readonly MatchType[] = ['phrase', 'broad', 'exact'];

/**
 * What stopping the chosen words of a term (or the whole term) would do, in each match type at each place: what is
 * in hand in Sift.
 * @param positions of the chosen words, from 0; none chosen weighs the whole term
 * @throws Refusal when the term has no row in the window
 */
export async function weighChoice(
  deps: Deps,
  slug: string,
  query: { term: number; days?: number; positions: readonly number[] },
): Promise<ChoiceAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const { snapshot } = open;
  const t = snapshot.termIndex.get(query.term);
  if (t === undefined) throw new Refusal('This term has no row in the window any more. Choose another.', 404);
  const term = termAt(snapshot.terms, t);
  const words = term.kind === 'query' ? term.key.split(' ') : [];
  const ran = rowsOf(open, t);
  const choices = words.length > 0 ? weighAll(open, words, query.positions, ran[0]!) : [];
  const kept = open.protectedOwn.find((p) => p.text === term.key);
  return {
    ...{ id: term.id, raw: term.raw, words, kind: term.kind },
    ran: ran.map((r) => describeRow(open, r, term.key)),
    lastDay: ran
      .map((r) => lastDayAt(snapshot.rows, r))
      .sort()
      .at(-1)!,
    isKept: kept !== undefined,
    keptBy: kept?.by ?? null,
    hasConverted: snapshot.hasConverted.has(term.key),
    choices,
    smallestSafe: findSmallestSafe(choices),
  };
}

/** Rows of a term, costliest first. */
function rowsOf({ snapshot: { served, rows } }: Open, t: number): number[] {
  const all = Array.from(
    { length: served.rowStarts[t + 1]! - served.rowStarts[t]! },
    (_, i) => served.rowStarts[t]! + i,
  );
  return all.sort((a, b) => costAt(rows, b) - costAt(rows, a));
}

function weighAll(
  open: Open,
  words: readonly string[],
  positions: readonly number[],
  row: number,
): MatchChoice[] {
  const { served } = open.snapshot;
  const adGroup = served.adGroups[served.adGroupOf[row]!]!;
  const places = placesFor(open, adGroup);
  return IN_ORDER.map((match) => {
    const { text, refusal } = textFor(open, match, words, positions);
    return {
      match,
      text,
      refusal,
      places: refusal ? [] : weighPlaces(open, { text, match }, places),
    };
  });
}

/** Exact always means the whole term; phrase needs neighbouring words. */
function textFor(open: Open, match: MatchType, words: readonly string[], positions: readonly number[]) {
  const chosen = [...new Set(positions)].filter((p) => p < words.length).sort((a, b) => a - b);
  const whole = chosen.length === 0 || match === 'exact';
  const text = (whole ? words : chosen.map((p) => words[p]!)).join(' ');
  const apart = !whole && chosen.some((p, i) => i > 0 && p !== chosen[i - 1]! + 1);
  if (match === 'phrase' && apart) return { text, refusal: 'these words do not stand together' };
  const isCode = productCodeTest(open.account.productCodePattern);
  return { text, refusal: checkNegative({ text, match }, STANDIN_LIMITS, isCode)?.message ?? null };
}

/** Ad group and campaign where the term cost most, all shared lists (those in the tray too), and the account. */
function placesFor(
  open: Open,
  adGroup: { id: string; campaignId: string },
): { place: Place; name: string; note: string | null }[] {
  const { names, drafted, onItsWay, draft, snapshot } = open;
  const made = [...onItsWay, ...drafted].flatMap(({ change }) =>
    change.kind === 'make list' ? [change.listId] : [],
  );
  const lists = [...snapshot.mirror.lists.map((l) => l.id), ...made];
  return [
    { place: { kind: 'adGroup', id: adGroup.id }, name: names.adGroup(adGroup.id) ?? '', note: null },
    {
      place: { kind: 'campaign', id: adGroup.campaignId },
      name: names.campaign(adGroup.campaignId) ?? '',
      note: null,
    },
    ...lists.map((id) => ({
      place: { kind: 'list' as const, id },
      name: names.list(id) ?? id,
      note: whereItHangs(draft.gate.hungOn(id), (c) => names.campaign(c) ?? c),
    })),
    { place: { kind: 'account', id: null }, name: 'the whole account', note: null },
  ];
}

function whereItHangs(hungOn: readonly string[] | 'account', nameOf: (campaignId: string) => string): string {
  if (hungOn === 'account') return 'hangs on the whole account';
  if (hungOn.length === 0) return 'hangs nowhere, so it stops nothing';
  const some = hungOn.slice(0, 3).map(nameOf).join(', ');
  const more = hungOn.length > 3 ? ` and ${hungOn.length - 3} more` : '';
  return `hangs on ${hungOn.length} ${hungOn.length === 1 ? 'campaign' : 'campaigns'}: ${some}${more}`;
}

/** What a negative matches is found once; each place takes its part of it. */
function weighPlaces(
  open: Open,
  negative: NegativeText,
  places: readonly { place: Place; name: string; note: string | null }[],
): PlaceChoice[] {
  const gate = open.draft.gate;
  const openRows = gate.matched(negative).filter((r) => gate.stopCount(r) === 0);
  const byText = keywordsStoppedBy(open, negative);
  const protectedTerms = protectedBy(open, [negative]);
  return places.map((at) => {
    const stopped = gate.within(openRows, at.place);
    const touched = touchedKeywords(open, gate, byText, at.place, stopped);
    const isThere = gate.holds(negative, at.place);
    return {
      ...at,
      weight: weighRows(open.snapshot, stopped),
      touched,
      protectedTerms: few(protectedTerms),
      isThere,
      isSafe: stopped.length > 0 && touched.length === 0 && protectedTerms.length === 0 && !isThere,
    };
  });
}

/** The fewest terms; the words at fault before the whole term; then the narrower place. */
function findSmallestSafe(choices: readonly MatchChoice[]): ChoiceAnswer['smallestSafe'] {
  const safe = choices.flatMap(({ match, places }) =>
    places.filter((p) => p.isSafe).map(({ place, weight }) => ({ match, place, weight })),
  );
  const byWords = safe.filter(({ match }) => match !== 'exact');
  const [smallest] = (byWords.length > 0 ? byWords : safe).sort(
    (a, b) => a.weight.terms - b.weight.terms || (a.match === b.match ? 0 : a.match === 'phrase' ? -1 : 1),
  );
  return smallest ? { match: smallest.match, place: smallest.place } : null;
}

function describeRow(open: Open, r: number, text: string): ChoiceAnswer['ran'][number] {
  const { snapshot, names } = open;
  const { clicks, costMicros, conversions } = figuresAt(snapshot.rows, r);
  const adGroup = snapshot.served.adGroups[snapshot.served.adGroupOf[r]!]!;
  const keyword = snapshot.keyword.get(String(snapshot.rows.keywordId[r]!));
  return {
    campaign: names.campaign(adGroup.campaignId) ?? '',
    adGroup: names.adGroup(adGroup.id) ?? '',
    keyword: keyword?.text || null,
    match: keyword?.match ?? 'unknown',
    ...{ clicks, costMicros, conversions },
    stoppedBy: snapshot.gate.stopCount(r) === 0 ? [] : stoppersOf(open, text, adGroup.id),
  };
}

function stoppersOf({ snapshot, names }: Open, text: string, adGroupId: string): NegativeInPlace[] {
  const byId = new Map(snapshot.mirror.negatives.map((n) => [n.id, n]));
  return snapshot.accountGate.stoppers(text, adGroupId).map((id) => {
    const { text: negative, match, place } = byId.get(id)!;
    return { text: negative, match, place, placeName: describePlace(place, names) };
  });
}
