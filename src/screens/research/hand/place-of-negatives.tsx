'use client';

import { useQuery } from '@tanstack/react-query';
import type { Place } from '@/core';
import { useRoutes } from '@/screens/frame/data/routes';
import { Select } from '@/ui/select';

/** Where negatives are to stand. */
export function PlaceOfNegatives({ place, onChange }: { place: Place; onChange: (place: Place) => void }) {
  const { query } = useRoutes();
  const { data } = useQuery(query('GET lists'));
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
        value={keyOf(place)}
        options={places.map((one) => ({ key: keyOf(one.place), says: one.says }))}
        onChange={(key) => onChange(places.find((one) => keyOf(one.place) === key)!.place)}
      />
    </p>
  );
}
