'use client';

import { counted } from '@/core';
import type { PlanView, PromotionGroup } from '@/contracts/promotion';
import { useAccount } from '@/screens/frame/account-context';
import { BidForm } from '@/screens/frame/bid-form';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { Check } from '@/ui/check';
import { conversionsOf, formatCount, formatMoment, formatShare } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { StateIcon } from '@/ui/state-icon';
import { SeatDiagram } from './seat-diagram';
import { KINDS, type Plan } from './use-plan';

type Props = { plan: Plan; groups: readonly PromotionGroup[] | undefined };

/** The whole plan of the term in hand, or of all that are marked: its parts, its bid, and what each seat would get. */
export function PlanInHand({ plan, groups }: Props) {
  const { line, lines, view, isMany, isStale } = plan;
  if (lines.length === 0) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  const group = groups?.find(({ key }) => key === line?.group);
  return (
    <InHand
      title={isMany ? `${formatCount(lines.length)} marked` : line!.term}
      actions={<Actions plan={plan} />}
    >
      <ErrorText error={plan.error} />
      {!isMany && line!.left && (
        <p className="mt-1 text-table">
          Not for this, says {line!.left.by}, {formatMoment(line!.left.at)}; back when it brings another
          conversion.
        </p>
      )}
      {view && (
        <div aria-busy={isStale} className={isStale ? 'opacity-60' : ''}>
          {isMany ? (
            <Kinds plan={plan} />
          ) : (
            <>
              <SeatDiagram plan={plan} view={view} group={group} />
              <OpeningBid key={`${line!.term} ${view.bid?.bidMicros}`} plan={plan} view={view} />
            </>
          )}
          <Effect view={view} isMany={isMany} />
        </div>
      )}
    </InHand>
  );
}

/** The kinds of parts that all marked terms get. */
function Kinds({ plan: { without, turn } }: { plan: Plan }) {
  return (
    <ul className="mt-1.5 text-table" aria-label="What is made">
      {KINDS.map(({ key, says }, i) => (
        <li key={key}>
          <label className="flex items-center gap-1">
            <Check checked={!without.has(key)} onChange={() => turn(key)} />
            {says} <Key>{i + 1}</Key>
          </label>
        </li>
      ))}
    </ul>
  );
}

/** The bid with which the keywords open, as it is reckoned; another can be given. */
function OpeningBid({ plan, view: { bid } }: { plan: Plan; view: PlanView }) {
  const { steersBy } = useAccount().summary;
  const money = useMoney();
  const write = (value: number) => (steersBy === 'CPA' ? money(value) : formatShare(value));
  return (
    <BidForm
      label="Opening bid"
      offeredMicros={bid?.bidMicros ?? null}
      onSet={plan.setBid}
      says="Take it"
      isQuiet
    >
      {bid && (
        <span className="basis-full text-small text-soft">
          A click cost {money(bid.cpcMicros)}
          {bid.target === null || bid.actual === null
            ? '; there is no target by which to lower it.'
            : bid.actual > bid.target
              ? ` × ${write(bid.target)} target ÷ ${write(bid.actual)} ${steersBy}.`
              : `; ${write(bid.actual)} ${steersBy} is within the target of ${write(bid.target)}.`}
        </span>
      )}
    </BidForm>
  );
}

/** What it comes to, and what stands in the way. */
function Effect({ view, isMany }: { view: PlanView; isMany: boolean }) {
  const { keywords, negatives, nowhere, obstacles, withoutBid, missing, gets, refusal } = view;
  return (
    <div className="mt-1.5 flex flex-col gap-1 text-table">
      <p>
        Makes {counted(keywords, 'keyword')} and {counted(negatives, 'negative')}
        {isMany && gets.length > 0 && (
          <>
            ; the seats get{' '}
            {counted(
              gets.reduce((sum, { weight }) => sum + (weight.clicks ?? 0), 0),
              'click',
            )}{' '}
            of this window
          </>
        )}
        .
      </p>
      {refusal !== null && <p className="text-rust">{refusal}</p>}
      {nowhere.terms > 0 && (
        <p className="text-rust">
          <StateIcon kind="hurting" /> {counted(nowhere.terms, 'query', 'queries')} that the negatives stop
          would be served by no seat ({conversionsOf(nowhere)}):{' '}
          {nowhere.first.map((text) => `“${text}”`).join(', ')}
          {nowhere.terms > nowhere.first.length && ' and others'}.
        </p>
      )}
      {withoutBid.count > 0 && (
        <p className="text-soft">
          No bid can be reckoned for {withoutBid.first.map((text) => `“${text}”`).join(', ')}
          {withoutBid.count > withoutBid.first.length &&
            ` and ${withoutBid.count - withoutBid.first.length} more`}
          : {isMany ? 'they are passed over.' : 'give one, and its keywords are made.'}
        </p>
      )}
      {isMany &&
        missing.map(({ group, matches }) => (
          <p key={group} className="text-soft">
            {group} has no {matches.join(' and no ')} seat: what belongs there is left out.
          </p>
        ))}
      {isMany && obstacles.count > 0 && (
        <div className="text-soft">
          {obstacles.first.map((said) => (
            <p key={said}>{said}</p>
          ))}
          {obstacles.count > obstacles.first.length && (
            <p>{counted(obstacles.count - obstacles.first.length, 'more part')} in the way of something.</p>
          )}
        </div>
      )}
    </div>
  );
}

function Actions({ plan }: { plan: Plan }) {
  const { isNothing, isBusy, isMany, line } = plan;
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" disabled={isNothing || isBusy} onClick={() => void plan.put()}>
        {isBusy ? 'Putting…' : 'Put in the tray'} <Key>↵</Key>
      </Button>
      {!isMany && (
        <Button onClick={plan.notForThis}>
          {line?.left ? 'Take up again' : 'Not for this'} <Key>x</Key>
        </Button>
      )}
    </div>
  );
}
