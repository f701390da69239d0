'use client';

import { useQuery } from '@tanstack/react-query';
import type { Place } from '@/core';
import { useRoutes } from '@/screens/frame/data/routes';
import { Select } from '@/ui/select';

const WHOLE = '';

/** Where negatives are to stand: the account, a list, a campaign, or an ad group of one. */
export function PlaceOfNegatives({ place, onChange }: { place: Place; onChange: (place: Place) => void }) {
  const { query } = useRoutes();
  const { data } = useQuery(query('GET lists'));
  const isNarrow = place.kind === 'campaign' || place.kind === 'adGroup';
  const { data: account } = useQuery({ ...query('GET account'), enabled: isNarrow });
  const adGroup = account?.adGroups.find(({ id }) => place.kind === 'adGroup' && id === place.id);
  const campaign = data?.campaigns.find(({ id, name }) =>
    adGroup ? name === adGroup.campaign : id === place.id,
  );
  const within = account?.adGroups.filter((one) => one.campaign === campaign?.name) ?? [];
  const keyOf = ({ kind, id }: Place) => (kind === 'account' ? 'account' : `${kind} ${id}`);
  const places: { place: Place; says: string }[] = [
    { place: { kind: 'account', id: null }, says: 'the whole account' },
    ...(data?.lists ?? []).map(({ id, name }) => ({
      place: { kind: 'list', id } as Place,
      says: `list ${name}`,
    })),
    ...(data?.campaigns ?? []).map(({ id, name }) => ({
      place: { kind: 'campaign', id } as Place,
      says: `campaign ${name}`,
    })),
  ];
  return (
    <p className="mt-2 text-table">
      in{' '}
      <Select
        look="word"
        label="Place"
        value={keyOf(campaign && isNarrow ? { kind: 'campaign', id: campaign.id } : place)}
        options={places.map((one) => ({ key: keyOf(one.place), says: one.says }))}
        onChange={(key) => onChange(places.find((one) => keyOf(one.place) === key)!.place)}
      />
      {isNarrow && campaign && within.length > 0 && (
        <>
          {', '}
          <Select
            look="word"
            label="Ad group"
            value={adGroup?.id ?? WHOLE}
            options={[
              { key: WHOLE, says: 'all of it' },
              ...within.map(({ id, name }) => ({ key: id, says: `ad group ${name}` })),
            ]}
            onChange={(id) =>
              onChange(id === WHOLE ? { kind: 'campaign', id: campaign.id } : { kind: 'adGroup', id })
            }
          />
        </>
      )}
    </p>
  );
}
