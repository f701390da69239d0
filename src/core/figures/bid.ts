import { breakEvenCvr, type Target } from './evidence/evidence';
import type { Prior } from './evidence/prior';

/**
 * The most that a click may cost by what is known of a term (rules 7.8): the worth of a conversion times the conversion
 * rate to be expected, the mean of Beta(α + c, β + n − c).
 * @param question conversions beyond the clicks count as that many clicks' worth
 * @param unitMicros the currency's smallest unit, to which the bid is rounded down
 * @returns micro-units; null without a target or any value
 * @example bidThatPays({ clicks: 50, conversions: 0, alpha: 2, beta: 48 }, { by: 'CPA', micros: 20_000_000 }) // 400_000
 */
export function bidThatPays(
  question: Prior & { clicks: number; conversions: number },
  target: Target,
  unitMicros = 10_000,
): number | null {
  const { clicks, conversions, alpha, beta } = question;
  const oneMicro = breakEvenCvr(1, target); // 1 over the worth of a conversion
  if (oneMicro === null) return null;
  const rate = (alpha + Math.min(conversions, clicks)) / (alpha + beta + clicks);
  return Math.floor(rate / oneMicro / unitMicros + 1e-9) * unitMicros;
}
