'use client';

import type { ReactNode } from 'react';
import { SERVED_BY, type Rule, type ServedBy } from '@/core';
import type { RulesView } from '@/contracts/rules';
import { Picker, type PickGroup } from '@/ui/picker';
import { Select } from '@/ui/select';

type Where = Rule['where'];
type Props = { where: Where; view: RulesView; onChange: (where: Where) => void };

/** What a sentence can name, by the part of it where it stands. */
const PARTS = ['campaigns', 'labels', 'productGroups'] as const;
type Part = (typeof PARTS)[number];
const GROUP_NAMES: Record<Part, string> = {
  ...{ campaigns: 'Campaigns', labels: 'Campaigns with a label', productGroups: 'Product groups' },
};
/** Before the name, where it is no campaign's. */
const PREFIX: Record<Part, string> = { campaigns: '', labels: 'label ', productGroups: 'product group ' };

/** Where a rule looks: campaigns, labels and product groups, or everything but these. */
export function WhereWords({ where, view, onChange }: Props) {
  const named: Record<Part, readonly { id: string; name: string }[]> = {
    campaigns: view.campaigns,
    labels: view.labels.map(asNamed),
    productGroups: view.productGroups.map(asNamed),
  };
  const chosen = PARTS.flatMap((part) => (where[part] ?? []).map((id) => ({ part, id })));
  const turn = (part: Part, id: string) => {
    const now = where[part] ?? [];
    onChange({ ...where, [part]: now.includes(id) ? now.filter((one) => one !== id) : [...now, id] });
  };
  const groups = PARTS.map((part): PickGroup => ({
    name: GROUP_NAMES[part],
    items: named[part]
      .filter(({ id }) => !where[part]?.includes(id))
      .map(({ id, name }) => ({ key: `${part} ${id}`, says: PREFIX[part] + name })),
  })).filter(({ items }) => items.length > 0);
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
      <Select
        look="word"
        label="Where"
        value={where.is}
        options={[
          { key: 'everywhere', says: 'in all campaigns' },
          { key: 'in', says: 'in these campaigns' },
          { key: 'not in', says: 'in all campaigns but' },
        ]}
        onChange={(is) =>
          onChange(
            is === 'everywhere'
              ? { is, campaigns: [], ...(where.servedBy && { servedBy: where.servedBy }) }
              : { ...where, is },
          )
        }
      />
      {where.is !== 'everywhere' && (
        <>
          {chosen.map(({ part, id }) => (
            <Chip key={`${part} ${id}`} onTakeOut={() => turn(part, id)}>
              {PREFIX[part]}
              {named[part].find((one) => one.id === id)?.name ?? 'one that is gone'}
            </Chip>
          ))}
          <Picker
            label="Choose a campaign"
            trigger={chosen.length === 0 ? 'choose' : 'more'}
            groups={groups}
            chosen={null}
            onPick={(key) => {
              const part = PARTS.find((one) => key.startsWith(`${one} `))!;
              turn(part, key.slice(part.length + 1));
            }}
          />
        </>
      )}
    </span>
  );
}

const asNamed = (name: string) => ({ id: name, name });

const SERVED_NAMES: Record<ServedBy, string> = {
  ...{ broad: 'broad', phrase: 'phrase', exact: 'exact', automatic: 'automatic' },
};

/** What keywords served the term; of which match type the keyword is. */
export function ServedWords({ about, where, onChange }: Omit<Props, 'view'> & { about: Rule['about'] }) {
  const chosen = where.servedBy ?? [];
  const turn = (match: ServedBy) => {
    const { servedBy: _, ...rest } = where;
    const next = SERVED_BY.filter((one) => chosen.includes(one) !== (one === match));
    onChange(next.length === 0 || next.length === SERVED_BY.length ? rest : { ...rest, servedBy: next });
  };
  const items = SERVED_BY.filter((one) => !chosen.includes(one)).map((key) => ({
    ...{ key, says: SERVED_NAMES[key] },
  }));
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
      {about === 'keywords' ? 'of' : 'served by'}
      {chosen.map((match) => (
        <Chip key={match} onTakeOut={() => turn(match)}>
          {SERVED_NAMES[match]}
        </Chip>
      ))}
      <Picker
        label={
          about === 'keywords' ? 'Match types of the keyword' : 'Match types of the keywords that served it'
        }
        trigger={chosen.length === 0 ? 'any' : 'or'}
        groups={[{ name: 'Keywords', items }]}
        chosen={null}
        onPick={(key) => turn(key as ServedBy)}
      />
      {about === 'keywords' ? 'match type' : chosen.length === 0 ? 'keyword' : 'keywords'}
    </span>
  );
}

function Chip({ children, onTakeOut }: { children: ReactNode; onTakeOut: () => void }) {
  return (
    <button
      type="button"
      title="Take it out"
      className="min-h-6 rounded border border-line px-1.5 text-base hover:border-rust"
      onClick={onTakeOut}
    >
      {children} ×
    </button>
  );
}
