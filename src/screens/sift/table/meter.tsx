import type { Evidence } from '@/contracts/sift';
import { formatCount } from '@/ui/format';
import { counted } from '@/core';

/** Sure enough to act on (rules 7.3). */
const SETTLED = 0.95;

/** The evidence in words: what is known, and what would settle it. */
export function sayEvidence(evidence: Evidence | null, clicks: number | null): string {
  if (!evidence) return 'No evidence: the account has no target, or a figure is unknown.';
  const { misses, breakEvenCvr, settlesAt } = evidence;
  const share = `${formatCount(Math.round(misses * 100))} %`;
  const line = `a click pays at ${(breakEvenCvr * 100).toFixed(1)} % conversions`;
  if (misses >= SETTLED) return `Misses the target, ${share} sure; ${line}.`;
  const more = settlesAt === null ? null : settlesAt - (clicks ?? 0);
  const settled =
    more !== null && more > 0 ? ` ${counted(more, 'more click')} without a conversion would settle it.` : '';
  return `${share} sure that it misses the target; ${line}.${settled}`;
}

/** A bar as long as the evidence is sure, with a tick where it settles. */
export function Meter({ evidence, clicks }: { evidence: Evidence | null; clicks: number | null }) {
  if (!evidence) return <span className="text-soft">–</span>;
  const share = Math.round(evidence.misses * 100);
  return (
    <span
      title={sayEvidence(evidence, clicks)}
      role="img"
      aria-label={`${share} %`}
      className={`relative block h-2 border border-line bg-linear-to-r bg-no-repeat after:absolute after:-inset-y-1 after:left-[95%] after:w-px after:bg-ink after:content-[''] ${evidence.misses >= SETTLED ? 'from-rust to-rust' : 'from-timber/60 to-timber/60'}`}
      style={{ backgroundSize: `${share}% 100%` }}
    />
  );
}
