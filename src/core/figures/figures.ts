/** Sums over a window. Null where the source gives none, which is not 0 (rules 7). Money in micro-units. */
export type Figures = {
  impressions: number | null;
  clicks: number | null;
  costMicros: number | null;
  conversions: number | null;
  valueMicros: number | null;
};

export const FIGURE_NAMES = ['impressions', 'clicks', 'costMicros', 'conversions', 'valueMicros'] as const;

/** Figures of which nothing is known: where a sum starts. */
export function noFigures(): Figures {
  return { impressions: null, clicks: null, costMicros: null, conversions: null, valueMicros: null };
}

/**
 * Adds `more` into `sum`, in place. Unknown and unknown stays unknown; unknown and a number is the number.
 * @example const sum = noFigures(); addFigures(sum, { clicks: 2 }); sum.clicks // 2
 */
export function addFigures(sum: Figures, more: Partial<Figures>): void {
  sum.impressions = plus(sum.impressions, more.impressions);
  sum.clicks = plus(sum.clicks, more.clicks);
  sum.costMicros = plus(sum.costMicros, more.costMicros);
  sum.conversions = plus(sum.conversions, more.conversions);
  sum.valueMicros = plus(sum.valueMicros, more.valueMicros);
}

function plus(sum: number | null, more: number | null | undefined): number | null {
  return more === null || more === undefined ? sum : (sum ?? 0) + more;
}

/** Sums of any number of rows. @example sumFigures([{ clicks: 2 }, { clicks: null }]).clicks // 2 */
export function sumFigures(rows: Iterable<Partial<Figures>>): Figures {
  const sum = noFigures();
  for (const row of rows) addFigures(sum, row);
  return sum;
}

/** Ratios of sums (rules 7.1); null where the denominator is 0 or either side is unknown. */
export type Ratios = {
  /** clicks / impressions, 0..1 */
  ctr: number | null;
  /** micro-units a click */
  cpcMicros: number | null;
  /** conversions / clicks */
  cvr: number | null;
  /** micro-units a conversion */
  cpaMicros: number | null;
  /** cost / value */
  acos: number | null;
  /** value / cost */
  roas: number | null;
};

/** @example ratios({ ...noFigures(), clicks: 4, costMicros: 2_000_000 }).cpcMicros // 500_000 */
export function ratios(figures: Figures): Ratios {
  const { impressions, clicks, costMicros, conversions, valueMicros } = figures;
  return {
    ctr: ratio(clicks, impressions),
    cpcMicros: ratio(costMicros, clicks),
    cvr: ratio(conversions, clicks),
    cpaMicros: ratio(costMicros, conversions),
    acos: ratio(costMicros, valueMicros),
    roas: ratio(valueMicros, costMicros),
  };
}

function ratio(over: number | null, under: number | null): number | null {
  return over === null || under === null || under === 0 ? null : over / under;
}

/**
 * Spend without return in micro-units (rules 7.2): the cost of a term whose conversions are 0. Unknown conversions
 * are not 0.
 * @example spendWithoutReturn({ costMicros: 5, conversions: null }) // 0
 */
export function spendWithoutReturn({ costMicros, conversions }: Partial<Figures>): number {
  return conversions === 0 ? (costMicros ?? 0) : 0;
}

/**
 * Orders numbers with the undefined (null) last in both directions (rules 7.1).
 * @example [null, 1, 2].sort((a, b) => compareWithUndefinedLast(a, b, 'desc')) // [2, 1, null]
 */
export function compareWithUndefinedLast(
  a: number | null,
  b: number | null,
  direction: 'asc' | 'desc',
): number {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
  return direction === 'asc' ? a - b : b - a;
}
