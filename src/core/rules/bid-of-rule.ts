import { bidThatPays } from '../figures';
import type { Judge, Sums } from './meets';
import type { KeywordAction } from './rule';

type Question = {
  /** what the rule saw of the keyword */
  sums: Pick<Sums, 'clicks' | 'conversions'>;
  judge: Pick<Judge, 'target' | 'prior'>;
  /** what it bids now */
  wasMicros: number;
  /** the currency's smallest unit */
  unitMicros: number;
};

/**
 * The bid that a rule proposes for a keyword: what pays (rules 7.8), not below its floor and not above its ceiling.
 * @returns micro-units; null where that is no lower (no higher) than now, or nothing can be said
 * @example bidOfRule({ do: 'set bid', way: 'lower', leastMicros: 100_000, mostMicros: 2_000_000 }, { sums: { clicks: 50, conversions: 0 }, judge: { target: { by: 'CPA', micros: 20_000_000 }, prior: { alpha: 2, beta: 48 } }, wasMicros: 900_000, unitMicros: 10_000 }) // 400_000
 */
export function bidOfRule(
  { way, leastMicros, mostMicros }: Extract<KeywordAction, { do: 'set bid' }>,
  { sums: { clicks, conversions }, judge: { target, prior }, wasMicros, unitMicros }: Question,
): number | null {
  if (prior === null || !(clicks >= 0) || !(conversions >= 0)) return null;
  const pays = bidThatPays({ ...prior, clicks, conversions }, target, unitMicros);
  if (pays === null) return null;
  const bid = Math.min(mostMicros, Math.max(leastMicros, pays));
  return (way === 'lower' ? bid < wasMicros : bid > wasMicros) ? bid : null;
}
