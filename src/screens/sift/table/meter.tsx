import type { CSSProperties } from 'react';
import type { Evidence } from '@/contracts/sift';
import { conversionsOf, formatCount, formatDay } from '@/ui/format';
import { counted } from '@/core';

/** Sure enough to act on (rules 7.3). */
const SETTLED = 0.95;

/**
 * The evidence in words: what is known, and what would settle it.
 * @param inWindow the term's figures in the window, told apart where all days say something else
 */
export function sayEvidence(
  evidence: Evidence | null,
  inWindow: { clicks: number | null; conversions: number | null },
): string {
  if (!evidence) return 'No evidence: the account has no target, or a figure is unknown.';
  return `${sayAllDays(evidence, inWindow)}${saySure(evidence)}`;
}

function sayAllDays(
  { clicks, conversions, since }: Evidence,
  inWindow: { clicks: number | null; conversions: number | null },
): string {
  if (clicks === inWindow.clicks && conversions === inWindow.conversions) return '';
  return `Since ${formatDay(since)}, beyond this window too: ${counted(clicks, 'click')}, ${conversionsOf({ conversions })}. `;
}

function saySure({ misses, breakEvenCvr, settlesAt, clicks, conversions }: Evidence): string {
  const share = `${formatCount(Math.round(misses * 100))} %`;
  const line = `it would pay from ${(breakEvenCvr * 100).toFixed(1)} conversions in 100 clicks`;
  const more = settlesAt === null || conversions > 0 || misses >= SETTLED ? 0 : settlesAt - clicks;
  const settled = more > 0 ? ` ${counted(more, 'more click')} without a conversion would settle it.` : '';
  return `${share} sure that it misses the target; ${line}.${settled}`;
}

/** A bar as long as the evidence is sure, with a tick where it settles. */
export function Meter({
  evidence,
  ...inWindow
}: {
  evidence: Evidence | null;
  clicks: number | null;
  conversions: number | null;
}) {
  if (!evidence) return <span className="text-soft">–</span>;
  return <SureBar sure={evidence.misses} settledFrom={SETTLED} says={sayEvidence(evidence, inWindow)} />;
}

/** A bar as long as something is sure, 0..1, with a tick where it is sure enough to act on. */
export function SureBar({
  sure,
  settledFrom,
  says,
  isGood = false,
}: {
  sure: number;
  settledFrom: number;
  says: string;
  /** what it is sure of is welcome */
  isGood?: boolean;
}) {
  const share = Math.round(sure * 100);
  const settled = isGood ? 'from-pine to-pine' : 'from-rust to-rust';
  return (
    <span
      title={says}
      role="img"
      aria-label={`${share} %`}
      className={`relative block h-2 border border-line bg-linear-to-r bg-no-repeat after:absolute after:-inset-y-1 after:left-(--tick) after:w-px after:bg-ink after:content-[''] ${sure >= settledFrom ? settled : 'from-timber/60 to-timber/60'}`}
      style={{ backgroundSize: `${share}% 100%`, '--tick': `${settledFrom * 100}%` } as CSSProperties}
    />
  );
}
