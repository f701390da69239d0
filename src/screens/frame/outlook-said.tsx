import type { ReactNode } from 'react';
import { counted } from '@/core';
import type { Outlook } from '@/contracts/outlook';
import { Explain } from '@/ui/explain';
import { balance, formatShare } from '@/ui/format';
import { useMoney } from './money';

/** Of so much that comes back nobody needs to be told more than the net. */
const LITTLE = 0.02;

/**
 * What stopping is likely to bring, in sentences: what comes back where, and the net.
 * @param children the press that stops it there, too
 */
export function OutlookSaid({ outlook, children }: { outlook: Outlook; children?: ReactNode }) {
  const money = useMoney();
  const { days, stoppedMicros, netMicros, back } = outlook;
  const backMicros = stoppedMicros - netMicros;
  if (stoppedMicros <= 0) return null;
  const period = days === 1 ? 'a day' : `${days} days`;
  if (backMicros < LITTLE * stoppedMicros)
    return (
      <p className="text-table text-soft" data-testid="outlook">
        Saves about <b className="text-ink">{money(netMicros)}</b> in {period}: little of it would come back.{' '}
        <Why outlook={outlook} />
      </p>
    );
  const places = back.map(({ name, costMicros }) => `${name} ${money(costMicros)}`).join(', ');
  return (
    <div className="text-table" data-testid="outlook">
      <p>
        {netMicros < LITTLE * stoppedMicros ? (
          <>
            <b className="text-timber">All</b> of about {money(stoppedMicros)} in {period} likely comes back:{' '}
            <b>alone it saves nothing</b>.
          </>
        ) : (
          <>
            Of about {money(stoppedMicros)} in {period}, <b className="text-timber">{money(backMicros)}</b>{' '}
            likely comes back; <b>net about {money(netMicros)}</b>.
          </>
        )}{' '}
        <Why outlook={outlook} />
      </p>
      {back.length > 0 && (
        <p className="line-clamp-2 text-small text-soft" title={places}>
          {places}
        </p>
      )}
      {back.some(({ negatives }) => negatives.length > 0) && children}
    </div>
  );
}

/** By what it is told, and how sure that is. */
function Why({ outlook: { seen, back, likely } }: { outlook: Outlook }) {
  const money = useMoney();
  const [from, to] = likely;
  return (
    <Explain about="what comes back" trigger="Why">
      A query that is stopped in one place is served by another that matches it: where it ran before, or where
      queries of the same keyword ran, as often as all days that are kept tell. Paused and ended places take
      nothing over. What is stopped is counted a little lower than it cost: the costliest terms of some days
      come lower in the next. In nine cases of ten the net lies between {balance(from, money)} and{' '}
      {balance(to, money)}, by the chance of clicks alone.{' '}
      {back.length > 0 &&
        `${formatShare(seen)} of what comes back is told by the very same queries, the rest by others like them${
          seen < 0.5 ? ', so it is a rough guess' : ''
        }. `}
      {back.length > 0 && `It is likely at ${counted(back.length, 'place')} named here.`}
    </Explain>
  );
}
