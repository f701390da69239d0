import { group } from 'd3-array';
import {
  compileAccountGate,
  covers,
  stops,
  textSeverity,
  type AccountShape,
  type MatchType,
  type NegativeText,
} from '../gate';
import { buildTermTable, matchingTexts, type TermTable } from '../mining';
import { normalise } from '../text';

/** The ad groups that hold a product group's exact, phrase and broad keywords; null where there is none. */
export type Seats = Readonly<Record<MatchType, string | null>>;

/** A keyword in a seat, or a negative that leaves the query to a narrower seat. */
export type PromotionPart = {
  kind: 'keyword' | 'negative';
  match: MatchType;
  adGroupId: string;
  /** the seat that it makes, or from which it keeps the query; a source is any other ad group that served the term */
  at: MatchType | 'source';
};

/** Why a part is not in a plan that belongs there. */
export type Obstacle =
  /** live keywords that the negative would shut out */
  | { part: PromotionPart; why: 'shuts out'; keywordIds: string[] }
  /** negatives that stop the text where its keyword would stand */
  | { part: PromotionPart; why: 'is stopped'; negativeIds: string[] }
  /** the seat that the negative would keep the query for, or in which it would stand, serves nothing yet */
  | { part: PromotionPart; why: 'serves nothing'; seat: MatchType };

export type PromotionPlan = {
  /** the term, normalised */
  text: string;
  /** what is to be done, keywords first */
  parts: PromotionPart[];
  /** what is there already */
  standing: PromotionPart[];
  obstacles: Obstacle[];
  /** match types for which there is no seat */
  missing: MatchType[];
  /** match types whose seat serves nothing, or not yet */
  idle: MatchType[];
};

export type PromotionQuestion = {
  text: string;
  seats: Seats;
  /** ad groups that served the term and miss its target by more than is tolerated; seats among them are passed over */
  missing: readonly string[];
  /** ad groups that serve nothing, or not yet: no query is left to them */
  idle?: ReadonlySet<string>;
};

export type PromotionPlanner = {
  /** @throws RangeError when an ad group is unknown */
  plan(question: PromotionQuestion): PromotionPlan;
  /** What becomes of queries, each in the ad group that served it, once a plan is done. */
  foresee(plan: PromotionPlan, served: readonly Served[]): Fate[];
};

type Served = { text: string; adGroupId: string };
/** The seat that serves it from then on; nowhere, where a negative of the plan stops it and none of its keywords gets it. */
export type Fate = 'stays' | MatchType | 'nowhere';

type Keyword = NegativeText & { id: string; adGroupId: string };

/**
 * Plans how a term gets a keyword of its own in each seat, and how the wider seats leave it to the narrower ones (rules 11).
 * No plan shuts out a live keyword, or stops the term where no narrower seat is open for it: such a negative becomes an
 * obstacle that is named. Nothing is planned that is there already, so what was promoted is not promoted again.
 * @param keywords live ones
 * @example compilePromotions(account, []).plan({ text: 'bee hive', seats: { exact: 'g1', phrase: null, broad: null }, missing: [] }).parts // [{ kind: 'keyword', match: 'exact', adGroupId: 'g1', at: 'exact' }]
 */
export function compilePromotions(account: AccountShape, keywords: readonly Keyword[]): PromotionPlanner {
  const gate = compileAccountGate(account);
  const negative = new Map(account.negatives.map((one) => [one.id, one]));
  const keywordsAt = group(keywords, ({ adGroupId }) => adGroupId);
  const tables = new Map<string, TermTable>();
  /** Keywords of an ad group whose text a negative stops. */
  function stoppedAt(adGroupId: string, stop: NegativeText): Keyword[] {
    const within = keywordsAt.get(adGroupId);
    if (!within) return [];
    let table = tables.get(adGroupId);
    if (!table) tables.set(adGroupId, (table = buildTermTable(within.map(({ text }) => text))));
    return matchingTexts(table, stop).map((i) => within[i]!);
  }
  const isKeyword = (adGroupId: string, text: string, match: MatchType) =>
    stoppedAt(adGroupId, { text, match: 'exact' }).some((keyword) => keyword.match === match);

  function plan({ text: raw, seats, missing, idle = NONE }: PromotionQuestion): PromotionPlan {
    const text = normalise(raw);
    const made: PromotionPlan = { text, parts: [], standing: [], obstacles: [], missing: [], idle: [] };
    if (text === '') return made;
    for (const match of NARROWEST_FIRST) {
      seat(made, match, seats[match]);
      if (idle.has(seats[match] ?? '')) made.idle.push(match);
    }
    const isOpen = (match: MatchType) => isSeated(made, match) && !made.idle.includes(match);
    const { exact, phrase } = seats;
    // The phrase seat serves longer queries, and the term itself only where nothing stops it there.
    const isServed = isOpen('exact') || (isOpen('phrase') && gate.stoppers(text, phrase!).length === 0);
    if (isSeated(made, 'exact')) leave(made, 'exact', 'phrase', seats.phrase, exact);
    if (isOpen('phrase') && isServed) leave(made, 'phrase', 'broad', seats.broad, phrase, exact);
    else if (isSeated(made, 'exact')) leave(made, 'exact', 'broad', seats.broad, exact);
    if (isSeated(made, 'exact'))
      for (const source of new Set(missing)) leave(made, 'exact', 'source', source, ...Object.values(seats));
    return made;
  }

  /** The keyword of a seat, unless something stops it there. */
  function seat(made: PromotionPlan, match: MatchType, adGroupId: string | null): void {
    if (adGroupId === null) {
      made.missing.push(match);
      return;
    }
    const part: PromotionPart = { kind: 'keyword', match, adGroupId, at: match };
    const keyword = { text: made.text, match };
    const negativeIds = gate
      .stoppers(made.text, adGroupId)
      .filter((id) => textSeverity(keyword, negative.get(id)!) === 'shut out');
    if (negativeIds.length > 0) made.obstacles.push({ part, why: 'is stopped', negativeIds });
    else if (isKeyword(adGroupId, made.text, match)) made.standing.push(part);
    else made.parts.push(part);
  }

  /**
   * A negative that leaves the term to the seat of its own match type, unless these are one ad group.
   * @param narrower ad groups in which it would stop the term at the seats that are to serve it
   */
  function leave(
    made: PromotionPlan,
    match: 'exact' | 'phrase',
    at: PromotionPart['at'],
    adGroupId: string | null,
    ...narrower: (string | null)[]
  ): void {
    if (adGroupId === null || narrower.includes(adGroupId)) return;
    const part: PromotionPart = { kind: 'negative', match, adGroupId, at };
    const stop = { text: made.text, match };
    const isThere = gate.stoppers(made.text, adGroupId).some((id) => covers(negative.get(id)!, stop));
    if (isThere) {
      made.standing.push(part);
      return;
    }
    const waitsFor = made.idle.find((seat) => seat === match || seat === at);
    const keywordIds = stoppedAt(adGroupId, stop)
      .filter((keyword) => textSeverity(keyword, stop) === 'shut out')
      .map(({ id }) => id);
    if (keywordIds.length > 0) made.obstacles.push({ part, why: 'shuts out', keywordIds });
    else if (waitsFor) made.obstacles.push({ part, why: 'serves nothing', seat: waitsFor });
    else made.parts.push(part);
  }

  function foresee({ text, parts, standing, idle }: PromotionPlan, served: readonly Served[]): Fate[] {
    const negatives = parts.filter(({ kind }) => kind === 'negative');
    const isStopped = (query: string, at: string) =>
      negatives.some(({ adGroupId, match }) => adGroupId === at && stops({ text, match }, query));
    const seated = NARROWEST_FIRST.flatMap((match) =>
      [...parts, ...standing].filter(
        (part) => part.kind === 'keyword' && part.match === match && !idle.includes(match),
      ),
    );
    return served.map(({ text: query, adGroupId: from }) => {
      if (!isStopped(query, from) || gate.stoppers(query, from).length > 0) return 'stays';
      const seat = seated.find(
        ({ adGroupId, match }) =>
          stops({ text, match }, query) &&
          !isStopped(query, adGroupId) &&
          gate.stoppers(query, adGroupId).length === 0,
      );
      return seat?.match ?? 'nowhere';
    });
  }

  return { plan, foresee };
}

const NONE: ReadonlySet<string> = new Set();
const NARROWEST_FIRST: readonly MatchType[] = ['exact', 'phrase', 'broad'];

/** Whether the keyword of a seat stands, or will. */
function isSeated({ parts, standing }: PromotionPlan, match: MatchType): boolean {
  return [...parts, ...standing].some((part) => part.kind === 'keyword' && part.match === match);
}
