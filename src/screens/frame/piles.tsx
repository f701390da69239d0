'use client';

import { formatCount } from '@/ui/format';
import { ToggleGroup } from '@/ui/toggle-group';

type Props<Pile extends string> = {
  piles: readonly Pile[];
  names: Readonly<Record<Pile, string>>;
  /** how many lie in each; undefined while that is not known */
  counts: Partial<Record<Pile, number>> | undefined;
  value: Pile;
  onChange: (pile: Pile) => void;
};

/** Which pile of some findings is shown, with how many lie in each. */
export function Piles<Pile extends string>({ piles, names, counts, value, onChange }: Props<Pile>) {
  return (
    <ToggleGroup
      label="Pile"
      className="gap-1"
      options={piles.map((key) => ({
        key,
        says: (
          <>
            {names[key]} <span className="text-soft">{counts ? formatCount(counts[key] ?? 0) : ''}</span>
          </>
        ),
      }))}
      value={value}
      onChange={onChange}
    />
  );
}
