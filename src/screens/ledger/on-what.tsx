'use client';

import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useRoutes } from '@/screens/frame/data/routes';
import { Picker } from '@/ui/picker';

type Props = {
  /** an element by its kind and id, as `campaign:7` */
  on: string | null;
  term: string | null;
  onChange: (what: { on: string } | { term: string } | Record<never, never>) => void;
};

/** What entries are about: a campaign, a list, or a search term that an address names. */
export function OnWhat({ on, term, onChange }: Props) {
  const { query } = useRoutes();
  const { data } = useQuery(query('GET lists'));
  const groups = [
    {
      name: 'Shared lists',
      items: (data?.lists ?? []).map(({ id, name }) => ({ key: `list:${id}`, says: name })),
    },
    {
      name: 'Campaigns',
      items: (data?.campaigns ?? []).map(({ id, name }) => ({ key: `campaign:${id}`, says: name })),
    },
  ];
  const named = groups.flatMap(({ items }) => items).find(({ key }) => key === on);
  const says = on !== null ? (named?.says ?? on) : term !== null ? `the term “${term}”` : 'anything';
  return (
    <>
      on
      <Picker
        label="On what"
        trigger={says}
        groups={groups}
        chosen={on}
        onPick={(key) => onChange({ on: key })}
        returnsTo="ledger"
      />
      {(on !== null || term !== null) && (
        <button
          type="button"
          className="grid size-6 place-content-center text-soft hover:text-ink"
          aria-label="On anything"
          onClick={() => onChange({})}
        >
          <X aria-hidden size={13} />
        </button>
      )}
    </>
  );
}
