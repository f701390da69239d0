'use client';

import { ToggleGroup as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

const LOOKS = {
  button:
    'rounded border px-2 data-[state=off]:border-line data-[state=on]:border-pine data-[state=on]:text-pine',
  underlined:
    'border-b-2 data-[state=off]:border-transparent data-[state=on]:border-pine data-[state=on]:text-ink',
};

type Props<Key extends string> = {
  label: string;
  options: readonly { key: Key; says: ReactNode }[];
  value: Key | null;
  onChange: (key: Key) => void;
  look?: keyof typeof LOOKS;
  className?: string;
  /** of each of them */
  itemClassName?: string;
};

/** One of a few that are all in sight: one stop of Tab, arrows go from one to the next. */
export function ToggleGroup<Key extends string>({
  label,
  options,
  value,
  onChange,
  look = 'button',
  className = '',
  itemClassName = '',
}: Props<Key>) {
  return (
    <Radix.Root
      type="single"
      aria-label={label}
      value={value ?? ''}
      onValueChange={(next) => next !== '' && onChange(next as Key)} // one always stays chosen
      className={`flex ${className}`}
    >
      {options.map(({ key, says }) => (
        <Radix.Item
          key={key}
          value={key}
          className={`min-h-6 min-w-6 data-[state=on]:font-semibold ${LOOKS[look]} ${itemClassName}`}
        >
          {says}
        </Radix.Item>
      ))}
    </Radix.Root>
  );
}
