'use client';

import { useQuery } from '@tanstack/react-query';
import { MATCH_TYPES, type MatchType } from '@/core';
import type { PromotionGroup } from '@/contracts/promotion';
import { InHand } from '@/screens/frame/in-hand';
import { useRoutes } from '@/screens/frame/data/routes';
import { MatchChip } from '@/ui/match-chip';
import { Picker } from '@/ui/picker';
import { MakeSeats } from './make-seats';
import { useSeats, type SeatName } from './use-seats';

const FOUND = '';
const keyOf = ({ campaign, adGroup }: SeatName) => JSON.stringify([campaign, adGroup]);

/** The seats of the group in hand: each can be another ad group, and those that are missing can be made. */
export function GroupInHand({ group }: { group: PromotionGroup | undefined }) {
  if (!group) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  const missing = narrowestFirst.filter((match) => group.seats[match] === null);
  return (
    <InHand title={group.name}>
      <p className="mt-1 text-table text-soft">
        {group.isOwn
          ? 'A product group of the Account screen.'
          : 'A campaign whose ad groups are in no product group. It becomes one when a seat is chosen.'}
      </p>
      {group.target === null && (
        <p className="mt-1 text-table text-soft">
          It has no target: a term opens at what its clicks cost, and goes on being served where it was.
        </p>
      )}
      {narrowestFirst.map((match) => (
        <SeatChoice key={match} group={group} match={match} />
      ))}
      {missing.length > 0 && <MakeSeats key={missing.join(' ')} group={group} missing={missing} />}
    </InHand>
  );
}

const narrowestFirst = MATCH_TYPES.toReversed();

function SeatChoice({ group, match }: { group: PromotionGroup; match: MatchType }) {
  const { query } = useRoutes();
  const { data } = useQuery(query('GET account'));
  const { choose } = useSeats();
  const seat = group.seats[match];
  const lost = group.gone.find((one) => one.match === match);
  // An ad group of another product group can be no seat of this one.
  const elsewhere = new Set(
    data?.productGroups.filter(({ name }) => `group ${name}` !== group.key).flatMap((one) => one.adGroupIds),
  );
  const adGroups = (data?.adGroups ?? [])
    .filter(({ id }) => !elsewhere.has(id))
    .map(({ id, campaign, name }) => ({ id, campaign, adGroup: name }));
  const pickable = (one: SeatName) => ({ key: keyOf(one), says: `${one.campaign} · ${one.adGroup}` });
  const own = new Set(data?.productGroups.find(({ name }) => `group ${name}` === group.key)?.adGroupIds);
  return (
    <div className="mt-2 text-table">
      <p className="flex flex-wrap items-center gap-1.5">
        <MatchChip match={match} />
        <Picker
          label={`${match} seat`}
          trigger={seat ? `${seat.campaign} · ${seat.adGroup}` : 'none'}
          chosen={seat?.isChosen ? keyOf(seat) : FOUND}
          groups={[
            { name: 'Found', items: [{ key: FOUND, says: 'by its name or content' }] },
            { name: group.name, items: adGroups.filter(({ id }) => own.has(id)).map(pickable) },
            { name: 'Elsewhere', items: adGroups.filter(({ id }) => !own.has(id)).map(pickable) },
          ]}
          onPick={(key) => {
            const [campaign, adGroup] = key === FOUND ? [] : (JSON.parse(key) as [string, string]);
            void choose(group, match, campaign === undefined ? null : { campaign, adGroup: adGroup! });
          }}
        />
        {seat && !seat.isChosen && <span className="text-soft">found by name or content</span>}
      </p>
      {seat && seat.state !== 'serves' && (
        <p className="text-timber">
          {seat.state === 'in the tray'
            ? 'Waits in the tray: its keywords can be planned, and nothing is left to it before it serves.'
            : 'Serves nothing: it, or its campaign, is paused or ended.'}
        </p>
      )}
      {lost && (
        <p className="text-rust">
          {lost.campaign} · {lost.adGroup} was chosen, and is not there any more.
        </p>
      )}
    </div>
  );
}
