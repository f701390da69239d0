/**
 * The variance of what stopping a term saves in as many days to come, by the chance of clicks alone: the clicks seen are one draw, those to
 * come here another, and so are those that come back (rules 13.5). Micro-units, squared.
 * @param eachMicros what a click costs
 * @param clicks to come
 * @param back the share of what is stopped that comes back
 * @example netVariance({ eachMicros: 2, clicks: 10, back: 0.5 }) // 120
 */
export function netVariance({
  eachMicros,
  clicks,
  back,
}: {
  eachMicros: number;
  clicks: number;
  back: number;
}): number {
  return 2 * eachMicros * eachMicros * clicks * (1 + back);
}

/** Normal deviate of nine cases in ten. */
const NINE_OF_TEN = 1.645;

/**
 * Between what amounts a net lies in nine cases of ten, by the chance of clicks alone.
 * @param variance of the net in as many days as the clicks were seen
 * @param stretch days, as a multiple of those: chance in what is to come grows with them, and what was seen wrongly counts each day
 * @example likelyRange(100, 400, 1) // [67.1, 132.9]
 */
export function likelyRange(net: number, variance: number, stretch: number): [from: number, to: number] {
  const by = NINE_OF_TEN * Math.sqrt((variance * (stretch + stretch ** 2)) / 2);
  return [net - by, net + by];
}
