import type { Days } from '@/contracts/days';
import {
  bidThatPays,
  codeKey,
  describeChange,
  noFigures,
  normalise,
  smallestUnitOf,
  stops,
  type Figures,
  type Place,
} from '@/core';
import type { NegativeInPlace } from '@/contracts/common';
import type { ExclusionChoice, KeywordsAnswer, OwnKeyword, TermDetail } from '@/contracts/hand';
import { groundOf, targetOf } from '../../compute/evidence/evidence';
import { besideOf } from '../../compute/evidence/surely-missing';
import { sayStatus, servingRows, isNotGiven } from '../../compute/serving';
import { steeringOfTerm } from '../../compute/evidence/row-targets';
import { allDaysOf } from '../../compute/history/all-days';
import { addRow, figuresAt, lastDayAt, termAt } from '../../compute/window-columns';
import { rowsOfTerm } from '../../compute/snapshot';
import { weighRows } from '../../compute/workbench';
import { listNotes } from '../../repositories/decisions/notes';
import { loadDaysOfRows } from '../../repositories/facts';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { inWords, requireTerm, rowsInOrder } from './weigh-choice';
import { derivedFrom } from '../../compute/derived';
import { group } from 'd3-array';
import { verdictOn } from './verdict-on';

/**
 * A search term: where it ran and on which days, what people said of it, and what else than a negative could be done.
 * @throws Refusal when the term has no row in the window
 */
export async function viewTerm(
  deps: Deps,
  slug: string,
  query: { term: number; days?: Days; campaign?: string },
): Promise<TermDetail> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const { snapshot, account } = open;
  const t = requireTerm(open, query.term);
  const term = termAt(snapshot.terms, t);
  const ran = rowsInOrder(open, t, query.campaign);
  const byDay = await loadDaysOfRows(
    deps.db,
    account.id,
    snapshot.window,
    term.id,
    ran.map((r) => ({ adGroupId: snapshot.rows.adGroupId[r]!, keywordId: snapshot.rows.keywordId[r]! })),
  );
  return {
    ...{ id: term.id, raw: term.raw, kind: term.kind },
    words: term.kind === 'query' ? term.key.split(' ') : [],
    ran: ran.map((r) => describeRow(open, r, term.key)),
    lastDay: ran
      .map((r) => lastDayAt(snapshot.rows, r))
      .sort()
      .at(-1)!,
    verdict: verdictOn(term.key, open.protectedOwn, open.aside),
    hasConverted: snapshot.hasConverted.has(term.key),
    beside: term.kind === 'query' ? besideOf(snapshot, account, t) : null,
    days: byDay.map(({ day, rows }) => ({ day, ...addUp(rows) })),
    sinceChange: sinceChange(open, ran[0]!, byDay),
    notes: await listNotes(deps.db, account.id, { kind: 'term', about: term.key }),
    ownKeyword: term.kind === 'query' ? findOwnKeyword(open, t, term.key) : null,
    exclusions: term.kind === 'code' ? weighExclusions(open, ran[0]!, term.raw) : [],
    draftedStops: draftedStops(open, ran, term),
  };
}

type Day = { clicks: number; costMicros: number; conversions: number };

function addUp(days: readonly Day[]): Day {
  const sum: Day = { clicks: 0, costMicros: 0, conversions: 0 };
  for (const day of days) {
    sum.clicks += day.clicks;
    sum.costMicros += day.costMicros;
    sum.conversions += day.conversions;
  }
  return sum;
}

function sinceChange(
  { snapshot }: Open,
  row: number,
  byDay: readonly { day: string; rows: readonly Day[] }[],
): TermDetail['sinceChange'] {
  const on = snapshot.keyword.get(String(snapshot.rows.keywordId[row]!))?.changedOn;
  if (!on || on <= snapshot.window.from || on > snapshot.window.to) return null;
  return { on, ...addUp(byDay.filter(({ day }) => day >= on).map(({ rows }) => rows[0]!)) };
}

function describeRow(open: Open, r: number, text: string): TermDetail['ran'][number] {
  const { snapshot, names } = open;
  const { clicks, costMicros, conversions } = figuresAt(snapshot.rows, r);
  const adGroup = snapshot.served.adGroups[snapshot.served.adGroupOf[r]!]!;
  const keyword = snapshot.keyword.get(String(snapshot.rows.keywordId[r]!));
  return {
    campaign: names.campaign(adGroup.campaignId) ?? '',
    adGroupId: adGroup.id,
    adGroup: names.adGroup(adGroup.id) ?? '',
    keyword: keyword?.text || null,
    match: keyword?.match ?? 'unknown',
    ...{ clicks, costMicros, conversions },
    stoppedBy: open.standing.stopCount(r) === 0 ? [] : stoppersOf(open, text, adGroup),
  };
}

/**
 * The negatives that stop a text in an ad group: those that stand there, and those that were accepted or are said to be
 * done.
 */
function stoppersOf(
  open: Open,
  text: string,
  adGroup: { id: string; campaignId: string },
): NegativeInPlace[] {
  const { accountGate, negative } = open.snapshot;
  const there = accountGate.stoppers(text, adGroup.id).map((id) => negative.get(id)!);
  const given = open.accepted.flatMap(({ change, state }) =>
    change.kind === 'add negative' && stops(change, text) && open.standing.isWithin(change.place, adGroup)
      ? [{ ...inWords(open, change), isSaid: state === 'said' }]
      : [],
  );
  return [
    ...there.filter((one) => open.standing.holds(one, one.place)).map((one) => inWords(open, one)),
    ...given,
  ];
}

/** A live exact keyword of the same text: in an ad group where the term ran, if there is one. */
function findOwnKeyword(open: Open, t: number, key: string): OwnKeyword | null {
  const { snapshot, account, drafted, names } = open;
  const same = exactKeywords(open).get(key) ?? [];
  const ranIn = new Set(rowsOfTerm(snapshot, t).map((r) => String(snapshot.rows.adGroupId[r]!)));
  const keyword = same.find((k) => ranIn.has(k.adGroupId)) ?? same[0];
  if (!keyword) return null;
  const { prior } = groundOf(snapshot);
  const allDays = allDaysOf(snapshot);
  const seen = { clicks: allDays.clicks[t]! || 0, conversions: allDays.conversions[t]! || 0 };
  const change = drafted.find(({ change: c }) => 'keywordId' in c && c.keywordId === keyword.id);
  return {
    id: keyword.id,
    adGroup: keyword.adGroup.name,
    campaign: names.campaign(keyword.adGroup.campaignId) ?? '',
    bidMicros: keyword.bidMicros,
    paysMicros:
      prior &&
      bidThatPays(
        { ...prior, ...seen },
        targetOf(snapshot, steeringOfTerm(snapshot, account, t)),
        smallestUnitOf(account.currency),
      ),
    expectedCvr:
      prior &&
      (prior.alpha + Math.min(seen.conversions, seen.clicks)) / (prior.alpha + prior.beta + seen.clicks),
    drafted: change ? describeChange(change.change, names) : null,
  };
}

const exactBySnapshot = derivedFrom(({ liveKeywords }: Open['snapshot']) =>
  group(
    liveKeywords.filter(({ match }) => match === 'exact'),
    ({ text }) => normalise(text),
  ),
);

/** Live exact keywords by their text as it is compared. */
export const exactKeywords = ({ snapshot }: Open) => exactBySnapshot(snapshot);

/** Excluding a product in the ad group or the campaign where its page cost most. */
function weighExclusions(open: Open, row: number, code: string): ExclusionChoice[] {
  const { snapshot, names, draft } = open;
  const { id, campaignId } = snapshot.served.adGroups[snapshot.served.adGroupOf[row]!]!;
  const places: { place: Place; name: string }[] = [
    { place: { kind: 'adGroup', id }, name: names.adGroup(id) ?? id },
    { place: { kind: 'campaign', id: campaignId }, name: names.campaign(campaignId) ?? campaignId },
  ];
  return places
    .filter(({ place }) => !isNotGiven(open.snapshot, place))
    .map(({ place, name }) => {
      const reached = draft.gate.reachedByCode(code, place).filter((r) => draft.gate.stopCount(r) === 0);
      const rows = servingRows(snapshot, reached);
      const note = sayStatus(snapshot, place);
      return {
        place,
        name,
        note,
        weight: weighRows(snapshot, rows),
        isThere: draft.gate.excludes(code, place),
      };
    });
}

/** Changes of the tray that stop the term where it ran. */
function draftedStops(
  { drafted, draft, snapshot, names }: Open,
  rows: readonly number[],
  term: { key: string; raw: string; kind: TermDetail['kind'] },
): TermDetail['draftedStops'] {
  const ranIn = rows.map((r) => snapshot.served.adGroups[snapshot.served.adGroupOf[r]!]!);
  return drafted.flatMap(({ id, change }) => {
    const acts =
      change.kind === 'add negative'
        ? term.kind === 'query' && stops(change, term.key)
        : change.kind === 'exclude product' && codeKey(change.code) === codeKey(term.raw);
    const here = acts && 'place' in change && ranIn.some((g) => draft.gate.isWithin(change.place, g));
    return here ? [{ changeId: id, said: describeChange(change, names) }] : [];
  });
}

/**
 * The keywords of an ad group with what each brought in the window.
 * @throws Refusal when there is no such ad group
 */
export async function viewKeywords(
  deps: Deps,
  slug: string,
  query: { adGroup: string; days?: Days },
): Promise<KeywordsAnswer> {
  const { snapshot } = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const adGroup = snapshot.adGroup.get(query.adGroup);
  if (!adGroup) throw new Refusal('This ad group is not there any more.', 404);
  const { rows, mirror } = snapshot;
  const own = Number(adGroup.id);
  const sums = new Map<number, Figures>();
  for (let r = 0; r < rows.count; r++) {
    if (rows.adGroupId[r] !== own) continue;
    const sum = sums.get(rows.keywordId[r]!) ?? noFigures();
    sums.set(rows.keywordId[r]!, sum);
    addRow(sum, rows, r);
  }
  const keywords = mirror.keywords
    .filter((k) => k.adGroupId === adGroup.id && k.status !== 'removed')
    .map(({ id, text, match, status, bidMicros }) => ({
      ...{ id, text, match, status, bidMicros },
      ...(sums.get(Number(id)) ?? noFigures()),
    }));
  return {
    adGroup: adGroup.name,
    keywords: keywords.sort((a, b) => (b.costMicros ?? 0) - (a.costMicros ?? 0)),
  };
}
