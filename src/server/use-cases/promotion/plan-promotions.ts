import { group } from 'd3';
import {
  counted,
  formatAmount,
  MATCH_TYPES,
  openingBid,
  ratios,
  smallestUnitOf,
  type Change,
  type MatchType,
  type PromotionPart,
} from '@/core';
import type { PartLine, PlanRequest, PlanView } from '@/contracts/promotion';
import type { DraftOutcome } from '@/contracts/tray';
import { derivedFrom } from '../../compute/derived';
import { few } from '../../compute/workbench';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { draftChanges } from '../tray/draft-changes';
import { convertingIn, findPromotions, keyOfPromotion } from './find-promotions';
import { keywordName, keywordsByName, planTerm } from './planning';
import { namesOf, sayObstacle } from './say-parts';
import { foreseeTraffic, newParts, whereItStays, type Planned } from './traffic';

/** What promoting some terms would make, and what each seat would get from then on; nothing is written. */
export async function planPromotions(deps: Deps, slug: string, request: PlanRequest): Promise<PlanView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), request.days);
  const planned = planAll(open, request);
  const [only] = planned;
  const parts = planned.flatMap((one) => newParts(one).map((part) => ({ one, part })));
  const isKeyword = ({ part }: { part: PromotionPart }) => part.kind === 'keyword';
  const noBid = planned.filter(({ bidMicros }) => bidMicros === null);
  return {
    parts: planned.length === 1 ? partLines(open, only!) : [],
    bid: planned.length === 1 ? bidOf(only!) : null,
    terms: planned.length,
    keywords: parts.filter(isKeyword).length,
    negatives: parts.filter((one) => !isKeyword(one)).length,
    refusal: parts.length > MOST_CHANGES ? sayTooMany(parts.length) : null,
    withoutBid: few(noBid.map(({ term }) => term)),
    missing: missingSeats(planned),
    obstacles: few(planned.flatMap((one) => one.plan.obstacles.map((o) => sayObstacle(open, o, one.term)))),
    stays: planned.length === 1 ? whereItStays(open, only!) : [],
    ...foreseeTraffic(open, planned),
  };
}

/** The most changes at once: nobody can look through more before sending. */
const MOST_CHANGES = 10_000;
const sayTooMany = (changes: number) =>
  `These would be ${changes.toLocaleString('en')} changes, and ${MOST_CHANGES.toLocaleString('en')} fit in one go. Mark fewer terms, or take parts out for all of them.`;

/**
 * Puts what promoting some terms makes in the tray: keywords first, and the negatives that leave the terms to them.
 * @throws Refusal when nothing is to be made
 */
export async function draftPromotions(
  deps: Deps,
  slug: string,
  personId: number,
  request: PlanRequest,
): Promise<DraftOutcome[]> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), request.days);
  const planned = planAll(open, request);
  const wanted = planned.flatMap((one) =>
    changesOf(open, one).map((change) => ({ change, why: whyOf(open, one) })),
  );
  if (wanted.length === 0)
    throw new Refusal('Nothing is to be made: all of it is there, stands in the way, or was taken out.', 409);
  if (wanted.length > MOST_CHANGES) throw new Refusal(sayTooMany(wanted.length), 409);
  return draftChanges(deps, slug, personId, wanted);
}

/**
 * What promoting a term would make in the groups of some ad groups, by the days that the screen shows.
 * @param atSource with the negatives where it misses its target (rules 11.4)
 * @returns `lacksSeat`: one of these groups has no exact seat
 */
export function promotionOf(
  open: Open,
  { term, adGroupIds, atSource }: { term: string; adGroupIds: readonly string[]; atSource: boolean },
): { changes: Change[]; lacksSeat: boolean } {
  const there = (promotionsByTerm(open).get(term) ?? []).filter(({ group }) =>
    adGroupIds.some((id) => group.adGroupIds.includes(id)),
  );
  const changes = there.flatMap((one) => {
    const bidMicros = openingBid(one.figures, one.group.target, smallestUnitOf(open.account.currency));
    const isOut = ({ at }: PromotionPart) => at === 'source' && !atSource;
    return bidMicros === null ? [] : changesOf(open, { ...one, isOut, bidMicros });
  });
  return { changes, lacksSeat: there.some(({ group: { seats } }) => seats.exact === null) };
}

const promotionsByTerm = derivedFrom((open: Open) => group(findPromotions(open, 0), ({ term }) => term));

/** @throws Refusal when a term did not convert in the group in these days */
function planAll(open: Open, { terms, without, bidMicros }: PlanRequest): Planned[] {
  const known = new Map(convertingIn(open).map((one) => [keyOfPromotion(one), one]));
  const out = new Set(without);
  const isOutMatch = (match: MatchType) => out.has(`keyword ${match}`);
  return terms.map(({ term, group }) => {
    const one = known.get(`${group} → ${term}`);
    if (!one) throw new Refusal(`“${term}” did not convert there in these days. Look again.`, 404);
    const bid = bidMicros ?? openingBid(one.figures, one.group.target, smallestUnitOf(open.account.currency));
    // Without a bid no keyword can be made, and nothing is stopped for it.
    const plan = planTerm(open, one.group, one.term, one.rows, bid === null ? () => true : isOutMatch);
    const isOut = (part: PromotionPart) => keysOf(part).some((key) => out.has(key));
    return { ...one, plan, isOut, bidMicros: bid };
  });
}

/** A part by its kind, and by its kind and place. */
const keysOf = ({ kind, at, adGroupId }: PromotionPart) => [`${kind} ${at}`, `${kind} ${at} ${adGroupId}`];

function partLines(open: Open, one: Planned): PartLine[] {
  const { plan, group } = one;
  const line = (part: PromotionPart, state: PartLine['state'], why: string | null = null): PartLine => ({
    key: part.at === 'source' ? `negative source ${part.adGroupId}` : `${part.kind} ${part.at}`,
    ...{ kind: part.kind, match: part.match, at: part.at, ...namesOf(open, part.adGroupId), state, why },
  });
  const outKeywords = MATCH_TYPES.flatMap((match): PartLine[] => {
    const seat = group.seats[match];
    if (!seat || !plan.missing.includes(match)) return [];
    const part = { kind: 'keyword', match, at: match, adGroupId: seat.adGroupId } as const;
    return [line(part, 'out')];
  });
  return [
    ...plan.parts.map((part) =>
      line(part, one.isOut(part) ? 'out' : pausedKeyword(open, one, part) ? 'runs again' : 'new'),
    ),
    ...outKeywords,
    ...plan.standing.map((part) => line(part, 'there')),
    ...plan.obstacles.map((obstacle) => line(obstacle.part, 'in the way', sayObstacle(open, obstacle, null))),
  ];
}

function bidOf({ figures, group, bidMicros }: Planned): PlanView['bid'] {
  const { cpcMicros, cpaMicros, acos } = ratios(figures);
  if (bidMicros === null || cpcMicros === null) return null;
  const { target } = group;
  return {
    ...{ bidMicros, cpcMicros },
    actual: target?.by === 'ACoS' ? acos : cpaMicros,
    target: target && (target.by === 'ACoS' ? target.fraction : target.micros),
  };
}

function missingSeats(planned: readonly Planned[]): PlanView['missing'] {
  const byGroup = new Map<string, PlanView['missing'][number]>();
  for (const { group } of planned) {
    const matches = MATCH_TYPES.filter((match) => group.seats[match] === null);
    if (matches.length > 0) byGroup.set(group.key, { group: group.name, matches });
  }
  return [...byGroup.values()];
}

/** The changes of a plan, keywords first. */
function changesOf(open: Open, one: Planned): Change[] {
  const text = one.plan.text;
  const parts = newParts(one);
  const seated = (['exact', 'phrase'] as const).flatMap(
    (match) =>
      [...parts, ...one.plan.standing].find((part) => part.kind === 'keyword' && part.match === match) ?? [],
  );
  return parts.flatMap((part): Change[] => {
    if (part.kind === 'keyword') {
      const keywordId = pausedKeyword(open, one, part);
      if (keywordId !== undefined) return [{ kind: 'run keyword', keywordId }];
      if (one.bidMicros === null) return [];
      const { match } = part;
      return [
        { kind: 'add keyword', ...namesOf(open, part.adGroupId), text, match, bidMicros: one.bidMicros },
      ];
    }
    const leavesTo = seated
      .filter(({ match }) => isNarrower(match, part.at) && !one.plan.idle.includes(match))
      .map(({ match, adGroupId }) => ({ ...namesOf(open, adGroupId), match }));
    return [
      {
        ...{ kind: 'add negative', text, match: part.match, leavesTo },
        place: { kind: 'adGroup', id: part.adGroupId },
      },
    ];
  });
}

/** Whether a seat takes what is stopped at another, or at a source. */
const isNarrower = (match: MatchType, at: PromotionPart['at']) =>
  match === 'exact' || (match === 'phrase' && at === 'broad');

/** The keyword that is paused where one is to be made: it runs again instead. */
function pausedKeyword(
  { snapshot }: Open,
  { plan }: Planned,
  { kind, match, adGroupId }: PromotionPart,
): string | undefined {
  const keyword = keywordsByName(snapshot).get(keywordName(adGroupId, match, plan.text));
  return kind === 'keyword' && keyword?.status === 'paused' ? keyword.id : undefined;
}

function whyOf({ account: { currency } }: Open, { term, figures, bidMicros }: Planned): string {
  const brought = `${counted(Math.round((figures.conversions ?? 0) * 100) / 100, 'conversion')}`;
  const bid = bidMicros === null ? '' : `, opens at ${formatAmount(bidMicros, currency)}`;
  return `promoted: “${term}” brought ${brought}${bid}`;
}
