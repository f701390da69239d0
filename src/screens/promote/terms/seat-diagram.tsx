'use client';

import type { ReactNode } from 'react';
import { counted, MATCH_TYPES, type MatchType } from '@/core';
import type { PartLine, PlanView, PromotionGroup } from '@/contracts/promotion';
import type { Weight } from '@/contracts/common';
import { Button, Key } from '@/ui/button';
import { Check } from '@/ui/check';
import { conversionsOf } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { usePromoteUrl } from '../promote-url';
import { isTurnable, type Plan } from './use-plan';

type Props = { plan: Plan; view: PlanView; group: PromotionGroup | undefined };

/**
 * The seats within each other, the narrowest inside: what a seat gets it takes from those around it. Below them the ad groups that
 * served the term and are no seat.
 */
export function SeatDiagram({ plan, view, group }: Props) {
  const [, setUrl] = usePromoteUrl();
  const sources = view.parts.filter(({ at }) => at === 'source');
  const lacking = MATCH_TYPES.filter((match) => !group?.seats[match]).toReversed();
  const toSeats = lacking.length > 0 && group && (
    <p className="mt-1.5 text-table text-soft">
      {group.name} has no {sayEither(lacking)} seat.{' '}
      <Button tone="quiet" onClick={() => void setUrl({ shown: 'seats', seatsOf: group.key })}>
        Choose or make {lacking.length === 1 ? 'it' : 'them'}
      </Button>
    </p>
  );
  if (lacking.length === MATCH_TYPES.length) return toSeats;
  const frame = (match: MatchType, inner: ReactNode) => (
    <SeatFrame match={match} plan={plan} view={view} group={group}>
      {inner}
    </SeatFrame>
  );
  return (
    <div className="mt-2 text-table" role="group" aria-label="Seats">
      {frame('broad', frame('phrase', frame('exact', null)))}
      {toSeats}
      {view.stays.map(({ campaign, adGroup, weight }) => (
        <p key={`${campaign} ${adGroup}`} className="mt-1.5 border-l-2 border-soft pl-2 text-soft">
          {campaign} · <b className="text-ink">{adGroup}</b> goes on serving it: {sayTraffic(weight)}
        </p>
      ))}
      {sources.map((part) => (
        <div key={part.key} className="mt-1.5 border-l-2 border-dashed border-soft pl-2">
          <p className="text-soft">
            {part.campaign} · <b className="text-ink">{part.adGroup}</b> served it over its target
          </p>
          <Part part={part} plan={plan} />
        </div>
      ))}
    </div>
  );
}

function SeatFrame({
  match,
  plan,
  view,
  group,
  children,
}: Props & { match: MatchType; children: ReactNode }) {
  const seat = group?.seats[match];
  const gets = view.gets.find((one) => one.match === match);
  const leaves = view.leaves.find((one) => one.adGroup === seat?.adGroup && one.campaign === seat?.campaign);
  return (
    <section
      aria-label={`${match} seat`}
      className={`rounded border px-2 pt-1 pb-1.5 ${seat ? 'border-line bg-sheet' : 'border-dashed border-soft'} ${children ? '' : 'border-pine'}`}
    >
      <p className="flex flex-wrap items-baseline gap-x-1.5">
        <MatchChip match={match} />
        {seat ? (
          <span className="min-w-0 break-words">
            <span className="text-soft">{seat.campaign} ·</span> <b>{seat.adGroup}</b>
            {seat.state !== 'serves' && <span className="text-timber"> {SAYS[seat.state]}</span>}
          </span>
        ) : (
          <span className="text-soft">no seat</span>
        )}
      </p>
      {view.parts
        .filter(({ at }) => at === match)
        .map((part) => (
          <Part key={part.key} part={part} plan={plan} />
        ))}
      {gets && <p className="text-pine">gets {sayTraffic(gets.weight)}</p>}
      {leaves && <p className="text-soft">leaves {sayTraffic(leaves.weight)}</p>}
      {children && <div className="mt-1.5">{children}</div>}
    </section>
  );
}

/** @example sayEither(['exact', 'phrase', 'broad']) // 'exact, phrase or broad' */
const sayEither = (matches: readonly MatchType[]) =>
  [matches.slice(0, -1).join(', '), matches.at(-1)].filter(Boolean).join(' or ');

const SAYS = { 'in the tray': 'in the tray', 'serves nothing': 'serves nothing' };

const sayTraffic = (weight: Weight) =>
  `${counted(weight.terms, 'query', 'queries')}, ${counted(weight.clicks ?? 0, 'click')}, ${conversionsOf(weight)}`;

/** A keyword or a negative of the plan; what would be made can be taken out. */
function Part({ part, plan }: { part: PartLine; plan: Plan }) {
  const what = part.kind === 'keyword' ? `${part.match} keyword` : `negative ${part.match}`;
  if (!isTurnable(part.state)) {
    return (
      <p className="flex min-h-6 items-baseline gap-1.5 text-soft">
        <span aria-hidden>{part.state === 'there' ? '✓' : '–'}</span>
        <span className="min-w-0 break-words">
          {part.state === 'there' ? `${what}, there already` : part.why}
        </span>
      </p>
    );
  }
  const digit = plan.parts.findIndex(({ key }) => key === part.key) + 1;
  return (
    <label
      className={`flex min-h-6 items-center gap-1 ${part.state === 'out' ? 'text-soft line-through' : ''}`}
    >
      <Check checked={part.state !== 'out'} onChange={() => plan.turn(part.key)} />
      {what}
      {part.state === 'runs again' && <span className="text-soft">, which is paused, runs again</span>}
      {digit > 0 && digit < 10 && <Key>{digit}</Key>}
    </label>
  );
}
