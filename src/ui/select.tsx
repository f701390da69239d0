'use client';

import { ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';
import type { ReactNode, Ref } from 'react';

/** One of the things that can be chosen. */
export type Option<Key extends string = string> = { key: Key; says: ReactNode; isDisabled?: boolean };

/** Options that are called what they are. @example optionsOf(['phrase']) // [{ key: 'phrase', says: 'phrase' }] */
export const optionsOf = <Key extends string>(keys: readonly Key[]): Option<Key>[] =>
  keys.map((key) => ({ key, says: key }));

/** Options by what each is called. @example optionsIn(['any'], { any: 'any keyword' }) // [{ key: 'any', says: 'any keyword' }] */
export const optionsIn = <Key extends string>(
  keys: readonly Key[],
  names: Readonly<Record<Key, string>>,
): Option<Key>[] => keys.map((key) => ({ key, says: names[key] }));

/** What has an id and a name, as options. */
export const namedOptions = (things: readonly { id: string; name: string }[]): Option[] =>
  things.map(({ id, name }) => ({ key: id, says: name }));

const LOOKS = {
  field: 'gap-1 rounded border border-line bg-sheet px-1.5 py-0.5',
  word: 'gap-px border-b border-dashed border-soft font-semibold text-ink',
  quiet: 'gap-px border-b border-dashed border-soft text-soft',
};

type Props<Key extends string> = {
  /** what is chosen, for those who hear it */
  label: string;
  options: readonly Option<Key>[];
  /** null while nothing is chosen: the placeholder stands there */
  value: Key | null;
  onChange: (key: Key) => void;
  /** a field of a form, or a word of the sentence that it stands in */
  look?: keyof typeof LOOKS;
  placeholder?: string;
  id?: string;
  ref?: Ref<HTMLButtonElement>;
  autoFocus?: boolean;
  isDisabled?: boolean;
  className?: string;
};

// The package keeps the empty text for itself; here it is a choice like any other ("all campaigns").
const outward = (key: string) => `=${key}`;
const inward = (value: string) => value.slice(1);

/** A choice of one out of some; letters and arrows choose, with the list open or not. */
export function Select<Key extends string>({
  label,
  options,
  value,
  onChange,
  look = 'field',
  placeholder,
  className = '',
  isDisabled,
  ...trigger
}: Props<Key>) {
  const chosen = options.find(({ key }) => key === value);
  return (
    <Radix.Root
      value={value === null ? '' : outward(value)}
      onValueChange={(next) => next !== '' && onChange(inward(next) as Key)}
      disabled={isDisabled}
    >
      <Radix.Trigger
        {...trigger}
        aria-label={label}
        className={`inline-flex min-h-6 max-w-full min-w-0 items-center text-left disabled:opacity-60 ${LOOKS[look]} ${className}`}
      >
        <span className="min-w-0 flex-1 truncate">
          <Radix.Value placeholder={placeholder}>{chosen?.says}</Radix.Value>
        </span>
        <ChevronDown size={10} aria-hidden className="shrink-0 text-soft" />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-h-[min(420px,var(--radix-select-content-available-height))] max-w-[min(480px,95vw)] min-w-(--radix-select-trigger-width) overflow-hidden rounded border border-line bg-sheet text-table text-ink shadow-lg"
        >
          <Radix.Viewport className="p-1">
            {options.map(({ key, says, isDisabled: isOut }) => (
              <Radix.Item
                key={key}
                value={outward(key)}
                disabled={isOut}
                className="flex min-h-6 cursor-pointer items-center rounded px-2 py-0.5 outline-none data-disabled:opacity-50 data-highlighted:bg-raised data-[state=checked]:font-semibold data-[state=checked]:text-pine"
              >
                <Radix.ItemText>{says}</Radix.ItemText>
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
