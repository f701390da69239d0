import {
  campaignsOverlap,
  certaintyOfSurvivor,
  daysBetween,
  describeChange,
  effectOfDraft,
  noFigures,
  normalise,
  rankSurvivors,
  seatAlone,
  type Figures,
} from '@/core';
import type {
  OverlapLine,
  OverlapsQuery,
  OverlapsView,
  SeatingLine,
  SeatingsView,
  Server,
} from '@/contracts/overlaps';
import type { Days } from '@/contracts/days';
import { accountCvr } from '../../../compute/account-cvr';
import { derivedByKey, derivedFrom } from '../../../compute/derived';
import { isServing } from '../../../compute/serving';
import type { Snapshot } from '../../../compute/snapshot';
import { addRow, keyAt, kindAt } from '../../../compute/window-columns';
import { few, findTerm, keywordsStoppedBy, protectedBy, weighRows } from '../../../compute/workbench';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { intoPiles, openPiles, type FoundKnot } from '../knots/piles';

/** More than that nobody reads; the rest is counted. */
const MOST_LINES = 2_000;

/** An ad group, by its index in the window, that serves a term; and what the term brought there. */
type Serving = { adGroup: number; figures: Figures };
type Ranked = Serving & { expectedMicros: number | null };
type Overlap = { t: number; serving: Ranked[]; sure: number };

/** Search terms that several ad groups serve (rules 5.6), as the tray leaves the account; what costs most elsewhere first. */
export async function viewOverlaps(deps: Deps, slug: string, query: OverlapsQuery): Promise<OverlapsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const found = findOverlaps(open, query);
  const leftAs = await openPiles(deps, open, 'overlap');
  const leftOf = (one: Overlap) =>
    leftAs({ key: keyAt(open.snapshot.terms, one.t), state: stateOf(open, one) });
  const piles = intoPiles(found, leftOf);
  const { window } = open.snapshot;
  return {
    days: daysBetween(window.from, window.to) + 1,
    counts: { open: piles.open.length, left: piles.left.length },
    elsewhereMicros: piles[query.pile].reduce((sum, one) => sum + costElsewhere(one), 0),
    lines: piles[query.pile].slice(0, MOST_LINES).map((one) => ({ ...lineOf(open, one), left: leftOf(one) })),
  };
}

/** It is otherwise when another ad group serves the term, too. */
const stateOf = ({ snapshot }: Open, { serving }: Overlap) =>
  serving
    .map(({ adGroup }) => Number(snapshot.served.adGroups[adGroup]!.id))
    .sort((a, b) => a - b)
    .join(' ');

/** Terms that several ad groups serve, as they are asked for first. */
export function knotsOfOverlaps(_: Deps, open: Open): FoundKnot[] {
  return findOverlaps(open, { clicks: 2, between: 'ad groups' }).map((one) => knotOf(open, one));
}

/** Some terms, where several ad groups serve them, however few clicks they have. */
export function overlapsNamed(_: Deps, open: Open, terms: readonly string[]): FoundKnot[] {
  const wanted = new Set(terms.map((term) => findTerm(open.snapshot, term)));
  const all = findOverlaps(open, { clicks: 0, between: 'ad groups' });
  return all.filter(({ t }) => wanted.has(t)).map((one) => knotOf(open, one));
}

function knotOf(open: Open, overlap: Overlap): FoundKnot {
  const text = keyAt(open.snapshot.terms, overlap.t);
  return {
    ...{ key: text, state: stateOf(open, overlap), costMicros: costElsewhere(overlap), conversions: 0 },
    says: `“${text}”, which is served by ${overlap.serving.length} ad groups`,
  };
}

const costElsewhere = ({ serving }: Overlap) =>
  serving.slice(1).reduce((sum, { figures }) => sum + (figures.costMicros ?? 0), 0);

const findOverlaps = derivedByKey(
  ({ clicks, between }: Pick<OverlapsQuery, 'clicks' | 'between'>) => `${clicks} ${between}`,
  (open: Open, { clicks, between }): Overlap[] => {
    const { terms, served } = open.snapshot;
    const cvr = accountCvr(open.snapshot);
    const found: Overlap[] = [];
    for (let t = 0; t < terms.count; t++) {
      if (served.rowStarts[t + 1]! - served.rowStarts[t]! < 2 || kindAt(terms, t) !== 'query') continue;
      const serving = meetingAmong(open, servingOf(open, t));
      const places = serving.map(({ adGroup }) => {
        const { id, campaignId } = served.adGroups[adGroup]!;
        return between === 'campaigns' ? campaignId : id;
      });
      if (new Set(places).size < 2) continue;
      const all = serving.reduce((sum, { figures }) => sum + (figures.clicks ?? 0), 0);
      if (all < clicks) continue;
      found.push({ t, ...rank(serving, cvr) });
    }
    return found.sort((a, b) => costElsewhere(b) - costElsewhere(a));
  },
  6,
);

/** Live ad groups in which a term had a click, and nothing stops it. */
function servingOf({ snapshot, draft }: Open, t: number): Serving[] {
  const { rows, served } = snapshot;
  const byAdGroup = new Map<number, Figures>();
  for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++) {
    const adGroup = served.adGroupOf[r]!;
    if (draft.gate.stopCount(r) > 0 || !isServing(snapshot, adGroup)) continue;
    let sum = byAdGroup.get(adGroup);
    if (!sum) byAdGroup.set(adGroup, (sum = noFigures()));
    addRow(sum, rows, r);
  }
  return [...byAdGroup]
    .map(([adGroup, figures]) => ({ adGroup, figures }))
    .filter(({ figures }) => (figures.clicks ?? 0) > 0);
}

/** Those that compete with another one: campaigns that never meet share no query (rules 5.3). */
function meetingAmong({ snapshot }: Open, serving: readonly Serving[]): Serving[] {
  return serving.filter((one) => serving.some((other) => other !== one && doMeet(snapshot, one, other)));
}

function doMeet({ campaign, served }: Snapshot, one: Serving, other: Serving): boolean {
  const [a, b] = [one, other].map(({ adGroup }) => campaign.get(served.adGroups[adGroup]!.campaignId)!);
  return a === b || campaignsOverlap(a!.segments, b!.segments);
}

/** The one that should have the term first: by what a conversion is expected to cost (rules 5.4). */
function rank(serving: readonly Serving[], cvr: number | null): Omit<Overlap, 't'> {
  const contenders = serving.map(({ adGroup, figures: { clicks, costMicros, conversions } }) => ({
    ...{ id: String(adGroup), createdAt: '', clicks, costMicros, conversions },
  }));
  const byId = new Map(serving.map((one) => [String(one.adGroup), one]));
  return {
    serving: rankSurvivors(contenders, cvr).map(({ id, costMicros }) => ({
      ...byId.get(id)!,
      expectedMicros: Number.isFinite(costMicros) ? costMicros : null,
    })),
    sure: certaintyOfSurvivor(contenders, cvr),
  };
}

function lineOf({ snapshot }: Open, { t, serving, sure }: Overlap): Omit<OverlapLine, 'left'> {
  const text = keyAt(snapshot.terms, t);
  return {
    term: text,
    sure,
    servers: serving.map((one): Server => {
      const { adGroup, figures, expectedMicros } = one;
      const { id, campaignId } = snapshot.served.adGroups[adGroup]!;
      return {
        ...{ adGroupId: id, campaignId, adGroup: snapshot.adGroup.get(id)?.name ?? '' },
        campaign: snapshot.campaign.get(campaignId)?.name ?? '',
        ...{ clicks: figures.clicks ?? 0, costMicros: figures.costMicros ?? 0 },
        ...{ conversions: figures.conversions ?? 0, valueMicros: figures.valueMicros ?? 0 },
        expectedMicros,
        apartFrom: serving.flatMap((other) =>
          doMeet(snapshot, one, other) ? [] : snapshot.served.adGroups[other.adGroup]!.id,
        ),
        saidAs: saidAs(snapshot).get(`${id} ${text}`) ?? [],
      };
    }),
  };
}

/** Match types of live keywords, by their ad group and normalised text. */
const saidAs = derivedFrom(({ liveKeywords }: Snapshot) => {
  const known = new Map<string, OverlapLine['servers'][number]['saidAs']>();
  for (const { adGroup, text, match } of liveKeywords) {
    const key = `${adGroup.id} ${normalise(text)}`;
    known.set(key, [...(known.get(key) ?? []), match]);
  }
  return known;
});

/**
 * The ways to give a term to one ad group alone, each with what it stops, and what else it touches.
 * @throws Refusal when nothing serves the term, or something stops it where it is to stay
 */
export async function viewSeatings(
  deps: Deps,
  slug: string,
  { term, keeps, days }: { term: string; keeps: string; days?: Days | undefined },
): Promise<SeatingsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const t = findTerm(open.snapshot, term);
  const serving = t === undefined ? [] : servingOf(open, t);
  const { adGroups } = open.snapshot.served;
  const keeper = serving.find(({ adGroup }) => adGroups[adGroup]!.id === keeps);
  if (!keeper) throw new Refusal(`“${term}” is not served there any more. Look again.`, 404);
  const seatOf = ({ adGroup }: Serving) => {
    const { id, campaignId } = adGroups[adGroup]!;
    return { adGroupId: id, campaignId };
  };
  const others = serving.filter((one) => one !== keeper && doMeet(open.snapshot, keeper, one));
  return {
    ...{ term, keeps, isProtected: protectedBy(open, [{ text: term, match: 'exact' }]).length > 0 },
    ways: seatAlone(term, seatOf(keeper), others.map(seatOf)).map(
      ({ where, match, changes }): SeatingLine => {
        const stopped = effectOfDraft(open.draft.gate, changes).stopped;
        const own = stopped.filter((r) => open.snapshot.rows.termOf[r] === t);
        const others = stopped.filter((r) => open.snapshot.rows.termOf[r] !== t);
        const { terms, rows } = open.snapshot;
        const alsoStops = [...new Set(others.map((r) => keyAt(terms, rows.termOf[r]!)))];
        const touched = changes.flatMap((change) =>
          keywordsStoppedBy(open, change)
            .filter(({ keyword }) => open.draft.gate.isWithin(change.place, keyword.adGroup))
            .map(({ keyword }) => `${keyword.text} (${keyword.match})`),
        );
        return {
          ...{ where, match, stops: weighRows(open.snapshot, own), also: weighRows(open.snapshot, others) },
          changes: changes.map((change) => ({ change, said: describeChange(change, open.names) })),
          alsoStops: few(alsoStops),
          keywords: few([...new Set(touched)]),
          hits: few(protectedBy(open, changes).filter((text) => normalise(text) !== normalise(term))),
        };
      },
    ),
  };
}
