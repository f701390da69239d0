import { LRUCache } from 'lru-cache';
import {
  clicksToCome,
  comesBack,
  compileAccountGate,
  fitPrior,
  netVariance,
  stops,
  type AccountGate,
  type ComesBack,
  type NegativeText,
  type Place,
  type Prior,
  type RowGate,
  priorOfGroup,
  takersOf,
  type Stopped,
  type Taker,
} from '@/core';
import { derivedFrom } from '../derived';
import { allDaysOf } from '../history/all-days';
import { isServing, servingRows } from '../serving';
import type { Snapshot, WindowFacts } from '../snapshot';
import { figuresAt, keyAt, kindAt } from '../window-columns';
import { groundOf } from '../evidence/evidence';
import { termSums, figuresOfTerm } from '../term-sums';
import { runningPlaces } from './running-places';

/** What stopping some rows is likely to bring in as many days as the window has (rules 13); micro-units. */
export type Outlook = {
  /** the cost to come of the stopped rows, were they not stopped */
  stoppedMicros: number;
  /** what comes back, by index of the ad group; the same texts ran there, or others like them */
  back: Map<number, { costMicros: number; seenMicros: number }>;
  /** of the net, by the chance of clicks alone */
  variance: number;
};

/** What would be in force: a gate, and what else is weighed beside it. */
export type InForce = { gate: RowGate; besides: readonly (NegativeText & { place: Place })[] };

/** The gate of the core for any text, and by negative the ad groups in which it is in force, once that was asked for. */
const reachOf = derivedFrom((gate: RowGate): { compiled: AccountGate; reached: Map<string, Uint8Array> } => ({
  compiled: compileAccountGate(gate.shape()),
  reached: new Map(),
}));

/** Clicks by impression of the account's terms, in the window. */
const clickPrior = derivedFrom((facts: WindowFacts): Prior | null => {
  const sums = termSums({ facts });
  const terms = Array.from({ length: facts.terms.count }, (_, t) => figuresOfTerm(sums, t));
  const known = terms.filter(({ impressions, clicks }) => impressions !== null && clicks !== null);
  return fitPrior(known.map(({ impressions, clicks }) => ({ clicks: impressions, conversions: clicks })));
});

/**
 * Looks ahead: what stopped rows cost in days to come, and what of it running ad groups take over.
 * @param rows rows of the window that are stopped, ascending
 */
export function lookAhead(snapshot: Snapshot, rows: readonly number[], inForce: InForce): Outlook {
  const outlook: Outlook = { stoppedMicros: 0, back: new Map(), variance: 0 };
  const serving = servingRows(snapshot, rows);
  const prior = priorOf(snapshot, serving);
  for (let begin = 0; begin < serving.length;) {
    const t = snapshot.rows.termOf[serving[begin]!]!;
    let end = begin + 1;
    while (end < serving.length && snapshot.rows.termOf[serving[end]!] === t) end += 1;
    takeTerm(snapshot, t, { stopped: serving.slice(begin, end), prior, inForce }, outlook);
    begin = end;
  }
  return outlook;
}

type OfTerm = { stopped: readonly number[]; prior: Prior | null; inForce: InForce };

function takeTerm(snapshot: Snapshot, t: number, { stopped, prior, inForce }: OfTerm, to: Outlook) {
  const toCome = stopped.map((r) => clicksOf(snapshot, r, prior));
  const costMicros = toCome.reduce((sum, { clicks, eachMicros }) => sum + clicks * eachMicros, 0);
  to.stoppedMicros += costMicros;
  if (costMicros === 0) return;
  const isQuery = kindAt(snapshot.terms, t) === 'query';
  let back = 0;
  for (const { adGroup, share, isSeen } of isQuery ? backOf(snapshot, t, stopped, inForce) : []) {
    const sum = to.back.get(adGroup) ?? { costMicros: 0, seenMicros: 0 };
    sum.costMicros += share * costMicros;
    if (isSeen) sum.seenMicros += share * costMicros;
    to.back.set(adGroup, sum);
    back += share;
  }
  for (const of of toCome) to.variance += netVariance({ ...of, back });
}

/** Of the rows that are stopped together (rules 13.2); null where nobody clicked. */
function priorOf({ rows, facts }: Snapshot, stopped: readonly number[]): Prior | null {
  const prior = clickPrior(facts);
  if (prior === null) return null;
  const group = { impressions: 0, clicks: 0 };
  for (const r of stopped) {
    const { impressions, clicks } = figuresAt(rows, r);
    if (impressions === null || clicks === null) continue;
    group.impressions += impressions;
    group.clicks += clicks;
  }
  return priorOfGroup(prior, group);
}

/** Clicks of a row in days to come, drawn towards the rate of those with it, and what each costs as it did so far. */
function clicksOf(
  { rows, facts }: Snapshot,
  r: number,
  prior: Prior | null,
): { clicks: number; eachMicros: number } {
  const { impressions, clicks, costMicros } = figuresAt(rows, r);
  if (clicks === null || costMicros === null) return { clicks: 1, eachMicros: costMicros ?? 0 };
  const eachMicros = clicks > 0 ? costMicros / clicks : (groundOf({ facts }).cpcMicros ?? 0);
  return { clicks: prior === null ? clicks : clicksToCome(prior, { impressions, clicks }), eachMicros };
}

function backOf(snapshot: Snapshot, t: number, stopped: readonly number[], inForce: InForce): ComesBack[] {
  const h = allDaysOf(snapshot).indexOf[t]!;
  if (h < 0) return []; // it ran in the days of the lag alone
  const closed = stopped.map((r) => snapshot.served.adGroupOf[r]!);
  const takers = takersFor(snapshot, h, closed);
  if (takers.length === 0) return [];
  return comesBack(takers, opennessOf(snapshot, keyAt(snapshot.terms, t), inForce));
}

/**
 * Who of those that serve may take a history term over that is stopped in some ad groups. A tray is looked at again after each
 * decision.
 */
function takersFor(snapshot: Snapshot, h: number, closed: readonly number[]): readonly Taker[] {
  const known = takersKnown(snapshot);
  const key = `${h} ${closed.join(' ')}`;
  let takers = known.get(key);
  if (!takers) {
    takers = findTakers(snapshot, h, closed).filter(
      ({ adGroup }) => !closed.includes(adGroup) && isServing(snapshot, adGroup),
    );
    known.set(key, takers);
  }
  return takers;
}

/** Stops of which the takers are kept. */
const MOST_KEPT = 50_000;
const takersKnown = derivedFrom((_: Snapshot) => new LRUCache<string, readonly Taker[]>({ max: MOST_KEPT }));

function findTakers(snapshot: Snapshot, h: number, closed: readonly number[]): Taker[] {
  const { history } = snapshot;
  const { habits, rowStarts, adGroupOf, sourceOf, namedOf } = runningPlaces(snapshot);
  const [from, ran]: [Stopped['from'][number][], Stopped['ran'][number][]] = [[], []];
  for (let r = rowStarts[h]!; r < rowStarts[h + 1]!; r++) {
    const [adGroup, days] = [adGroupOf[r]!, history.rows.days[r]!];
    if (adGroup < 0) continue; // it is gone
    if (closed.includes(adGroup)) from.push({ source: sourceOf(r), days });
    else ran.push({ adGroup, days });
  }
  return from.length === 0 ? [] : takersOf(habits, { from, ran, named: namedOf(h) });
}

/** Tells whether a text is open in an ad group. */
function opennessOf(
  { served }: Snapshot,
  text: string,
  { gate, besides }: InForce,
): (adGroup: number) => boolean {
  const { compiled, reached } = reachOf(gate);
  const closing = compiled.matching(text).map((id) => {
    let mask = reached.get(id);
    if (!mask) {
      mask = Uint8Array.from(served.adGroups, (adGroup) => (compiled.isInForce(id, adGroup.id) ? 1 : 0));
      reached.set(id, mask);
    }
    return mask;
  });
  const more = besides.filter((negative) => stops(negative, text));
  return (g) =>
    closing.every((mask) => mask[g] === 0) &&
    !more.some(({ place }) => gate.isWithin(place, served.adGroups[g]!));
}
