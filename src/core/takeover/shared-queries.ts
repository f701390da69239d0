/** Queries of one place, as they ran in another one. */
export type Tally = {
  queries: number;
  /** days here → queries that ran here on so many */
  byDays: Map<number, number>;
  /** those that ran there, too: days there, and here */
  seen: { there: number; here: number }[];
};

/** What is thought of the queries of one place in another one. */
export type Fitted = {
  /** share of the queries that it can serve as well */
  share: number;
  /** of the days of such a query, the share that it serves */
  pull: number;
};

/** What was thought before weighs as much as so many queries, and so many days. */
const WEIGHT = { queries: 3, days: 4 };
const ROUNDS = 12;

/**
 * How many of the queries are shared, and on how many days they go there. A query is shared or not; one that is goes there on each day
 * with the same probability, so that what was seldom seen may be shared unseen.
 * @param before what is thought of the like
 * Source: the zero-inflated binomial (Hall 2000, Biometrics 56:1030), by expectation and maximisation.
 * @example fitShared({ queries: 0, byDays: new Map(), seen: [] }, { share: 0.5, pull: 0.3 }) // { share: 0.5, pull: 0.3 }
 */
export function fitShared({ queries, byDays, seen }: Tally, before: Fitted): Fitted {
  const there = seen.reduce((sum, one) => sum + one.there, 0);
  const seenDays = seen.reduce((sum, one) => sum + one.there + one.here, 0);
  const unseen = new Map(byDays);
  for (const { here } of seen) unseen.set(here, unseen.get(here)! - 1);
  let { share, pull } = before;
  for (let round = 0; round < ROUNDS; round++) {
    let [more, moreDays] = [0, 0];
    for (const [days, times] of unseen) {
      const isShared = sharedUnseen({ share, pull }, days);
      more += times * isShared;
      moreDays += times * isShared * days;
    }
    share = (seen.length + more + WEIGHT.queries * before.share) / (queries + WEIGHT.queries);
    pull = (there + WEIGHT.days * before.pull) / (seenDays + moreDays + WEIGHT.days);
  }
  return { share, pull };
}

/** The probability that a query is shared which never ran there, after so many days here. */
export function sharedUnseen({ share, pull }: Fitted, days: number): number {
  const unlucky = share * (1 - pull) ** days;
  return unlucky / (unlucky + 1 - share);
}
