import type { Candidates } from './candidates';

const ROUNDS = 80;
/** Rounds without a better bound after which steps are halved. */
const PATIENCE = 8;
const CLOSE = 1e-6;

/**
 * An upper bound on the cost that any `limit` candidates can stop together, by Lagrangian relaxation: a term may be
 * stopped only as often as chosen candidates stop it, at a price u(t) between 0 and its cost. For any prices
 *   Σ (cost − u) + the `limit` largest of Σ u over a candidate's terms
 * is a bound; subgradient steps make it small. The candidates that are largest at a round are a set of their own, and
 * the best of these is handed back as well.
 * @param start a set that is known, with its cost
 * Source: Cornuéjols, Fisher, Nemhauser 1977, Management Science 23:789.
 */
export function boundByPrices(
  { count, starts, stops, costs }: Candidates,
  limit: number,
  start: { chosen: readonly number[]; cost: number },
): { boundMicros: number; chosen: readonly number[]; cost: number } {
  const terms = costs.length;
  let best = start;
  if (limit >= count) return { boundMicros: sum(costs), ...best };
  const prices = Float64Array.from(costs);
  const weights = new Float64Array(count);
  const times = new Uint32Array(terms);
  /** How far the price of a term should fall; 0 where it is at an end already and would go beyond. */
  const directionOf = (t: number) => {
    const direction = times[t]! - 1;
    if (direction > 0 && prices[t]! <= 0) return 0;
    return direction < 0 && prices[t]! >= costs[t]! ? 0 : direction;
  };
  let [bound, scale, waited] = [sum(costs), 1, 0];
  for (let round = 0; round < ROUNDS; round++) {
    for (let j = 0; j < count; j++) {
      let weight = 0;
      for (let i = starts[j]!; i < starts[j + 1]!; i++) weight += prices[stops[i]!]!;
      weights[j] = weight;
    }
    const largest = indexesOfLargest(weights, limit);
    let value = 0;
    for (let t = 0; t < terms; t++) value += costs[t]! - prices[t]!;
    for (const j of largest) value += weights[j]!;
    waited = value < bound - CLOSE ? 0 : waited + 1;
    bound = Math.min(bound, value);

    times.fill(0);
    for (const j of largest) for (let i = starts[j]!; i < starts[j + 1]!; i++) times[stops[i]!]! += 1;
    let cost = 0;
    for (let t = 0; t < terms; t++) if (times[t]! > 0) cost += costs[t]!;
    if (cost > best.cost) best = { chosen: largest, cost };
    if (bound - best.cost < 0.5) break; // costs are whole micro-units

    if (waited >= PATIENCE) [scale, waited] = [scale / 2, 0];
    let slope = 0;
    for (let t = 0; t < terms; t++) slope += directionOf(t) ** 2;
    if (slope === 0) break;
    const step = (scale * (value - best.cost)) / slope;
    for (let t = 0; t < terms; t++)
      prices[t] = Math.min(costs[t]!, Math.max(0, prices[t]! - step * directionOf(t)));
  }
  return { boundMicros: bound, ...best };
}

/** Ascending; smaller indexes first where values are equal. Few are wanted of many, so most are passed over at once. */
function indexesOfLargest(values: Float64Array, count: number): number[] {
  /** the largest so far, the largest first */
  const largest: number[] = [];
  for (let j = 0; j < values.length; j++) {
    const value = values[j]!;
    if (largest.length === count && value <= values[largest[count - 1]!]!) continue;
    let at = Math.min(largest.length, count - 1);
    for (; at > 0 && values[largest[at - 1]!]! < value; at--) largest[at] = largest[at - 1]!;
    largest[at] = j;
  }
  return largest.sort((a, b) => a - b);
}

function sum(values: Float64Array): number {
  let total = 0;
  for (const value of values) total += value;
  return total;
}
