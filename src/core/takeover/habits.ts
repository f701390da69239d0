import { fitShared, type Fitted, type Tally } from './shared-queries';

/**
 * Where queries ran over a stretch of days. Row r is a text in an ad group; rows stand by text, each with what served it most
 * there: its keyword, or the ad group where there is none.
 */
export type RanColumns = {
  textOf: ArrayLike<number>;
  adGroupOf: ArrayLike<number>;
  sourceOf: ArrayLike<number>;
  /** on which it was served there */
  days: ArrayLike<number>;
  /** NaN where unknown */
  impressions: ArrayLike<number>;
};

/** How an ad group shares the queries of a source. */
export type Habit = Fitted & {
  /** impressions on a day there, as a share of those at the source */
  visibility: number;
};

/** How an ad group shares the queries of a source that a live keyword of it names, and the others (rules 13.1). */
export type Beside = { adGroup: number; named: Habit; others: Habit };

/** What the days that were served tell of where queries go. */
export type Habits = {
  /** the ad groups in which queries of a source ran, or that name some, none twice */
  beside(source: number): readonly Beside[];
  /** how an ad group shares a query that it names, where nothing else is known of it */
  usual: Habit;
};

/** The queries of a source that an ad group names, and those that it does not, as they ran there. */
type Ran = { named: Tally; others: Tally; seen: { here: number; there: number } };
type Source = { all: Tally; beside: Map<number, Ran> };

/** Of pairs of which little is seen this is thought before: an ad group that names a query is taken for what the account's others are. */
const OTHERS_BEFORE: Fitted = { share: 0.02, pull: 0.2 };
const NAMED_BEFORE: Fitted = { share: 0.5, pull: 0.3 };
/** Of fewer impressions little is learnt about how well queries are seen elsewhere. */
const PRIOR_IMPRESSIONS = 300;
/** Days without an impression are not reported: only a query that has so many a day, for so many days, shows how often it was seen. */
const SEEN = { daily: 3, days: 5 };

/**
 * Learns from what ran where: for each source and each ad group beside, how many of its queries both serve, and how often.
 * @param named of a text: the ad groups, running and open to it, of which a live keyword holds with it by its words
 * @example learnHabits({ textOf: [0, 0], adGroupOf: [1, 2], sourceOf: [7, 8], days: [3, 1], impressions: [9, 3] }, () => []).beside(7).map((one) => one.adGroup) // [2]
 */
export function learnHabits(ran: RanColumns, named: (text: number) => readonly number[]): Habits {
  const sources = new Map<number, Source>();
  const pooled = emptyTally();
  const seen = { here: PRIOR_IMPRESSIONS, there: PRIOR_IMPRESSIONS };
  for (let begin = 0; begin < ran.textOf.length;) {
    let end = begin + 1;
    while (end < ran.textOf.length && ran.textOf[end] === ran.textOf[begin]) end += 1;
    takeText(ran, begin, end, { sources, pooled, seen }, named(ran.textOf[begin]!));
    begin = end;
  }
  const usual = seen.there / seen.here;
  const ofNamed = fitShared(pooled, NAMED_BEFORE);
  const fitBeside = (all: Tally, adGroup: number, { named: byName, others, seen: views }: Ran): Beside => {
    const visibility = (views.there + PRIOR_IMPRESSIONS * usual) / (views.here + PRIOR_IMPRESSIONS);
    return {
      adGroup,
      named: { ...fitShared(byName, ofNamed), visibility },
      others: { ...fitShared({ ...others, ...without(all, byName) }, OTHERS_BEFORE), visibility },
    };
  };
  const learnt = new Map<number, readonly Beside[]>();
  return {
    beside(source) {
      let known = learnt.get(source);
      if (!known) {
        const { all, beside } = sources.get(source) ?? NOTHING_RAN;
        learnt.set(source, (known = Array.from(beside, ([g, ran]) => fitBeside(all, g, ran))));
      }
      return known;
    },
    usual: { ...ofNamed, visibility: usual },
  };
}

const emptyTally = (): Tally => ({ queries: 0, byDays: new Map(), seen: [] });
const NOTHING_RAN: Source = { all: emptyTally(), beside: new Map() };

function count(tally: Pick<Tally, 'queries' | 'byDays'>, days: number): void {
  tally.queries += 1;
  tally.byDays.set(days, (tally.byDays.get(days) ?? 0) + 1);
}

/** The queries of a source that an ad group does not name. */
function without(all: Tally, named: Tally): Pick<Tally, 'queries' | 'byDays'> {
  const byDays = new Map(all.byDays);
  for (const [days, times] of named.byDays) byDays.set(days, byDays.get(days)! - times);
  return { queries: all.queries - named.queries, byDays };
}

function takeText(
  ran: RanColumns,
  begin: number,
  end: number,
  to: { sources: Map<number, Source>; pooled: Tally; seen: Ran['seen'] },
  named: readonly number[],
): void {
  for (let r = begin; r < end; r++) {
    const [here, adGroup] = [ran.days[r]!, ran.adGroupOf[r]!];
    const source = sourceAt(to.sources, ran.sourceOf[r]!);
    count(source.all, here);
    for (const other of named) {
      if (other === adGroup) continue;
      count(besideAt(source, other).named, here);
      count(to.pooled, here);
    }
    const aDay = ran.impressions[r]! / here;
    for (let o = begin; o < end; o++) {
      const other = ran.adGroupOf[o]!;
      if (other === adGroup) continue;
      const beside = besideAt(source, other);
      const one = { here, there: ran.days[o]! };
      const isNamed = named.includes(other);
      (isNamed ? beside.named : beside.others).seen.push(one);
      if (isNamed) to.pooled.seen.push(one);
      if (!(aDay >= SEEN.daily && here >= SEEN.days) || Number.isNaN(ran.impressions[o]!)) continue;
      for (const seen of here >= one.there ? [beside.seen, to.seen] : [beside.seen]) {
        seen.here += aDay * one.there;
        seen.there += ran.impressions[o]!;
      }
    }
  }
}

function sourceAt(sources: Map<number, Source>, key: number): Source {
  let source = sources.get(key);
  if (!source) sources.set(key, (source = { all: emptyTally(), beside: new Map() }));
  return source;
}

function besideAt({ beside }: Source, adGroup: number): Ran {
  let there = beside.get(adGroup);
  if (!there)
    beside.set(adGroup, (there = { named: emptyTally(), others: emptyTally(), seen: { here: 0, there: 0 } }));
  return there;
}
