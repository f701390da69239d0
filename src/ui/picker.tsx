'use client';

import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { PopoverPanel } from './explain';

/** What can be picked: `says` is what is searched, and shown where nothing else is. */
export type Pickable = { key: string; says: string; shown?: ReactNode };
export type PickGroup = { name: string; items: readonly Pickable[] };

type Props = {
  label: string;
  trigger: ReactNode;
  groups: readonly PickGroup[];
  chosen: string | null;
  onPick: (key: string) => void;
  /** takes the focus once something is picked, or nothing is */
  returnsTo?: string;
};

/** One compact choice out of many, searched by what they say. */
export function Picker({ label, trigger, groups, chosen, onPick, returnsTo }: Props) {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <Popover.Root open={isOpen} onOpenChange={setIsOpen}>
      <Popover.Trigger
        aria-label={label}
        className="inline-flex min-h-6 max-w-full items-center gap-1 border-b border-dashed border-soft text-left font-semibold"
      >
        {trigger} <ChevronDown size={10} aria-hidden className="shrink-0 text-soft" />
      </Popover.Trigger>
      <PopoverPanel
        label={label}
        className="w-72 p-0!"
        onCloseAutoFocus={(event) => {
          const target = returnsTo && document.getElementById(returnsTo);
          if (!target) return;
          event.preventDefault();
          target.focus();
        }}
      >
        <Command label={label}>
          <Command.Input
            placeholder="Find"
            className="w-full border-b border-line bg-transparent px-3 py-1.5 outline-none placeholder:text-soft"
          />
          <Command.List className="max-h-80 overflow-y-auto p-1">
            <Command.Empty className="px-2 py-1.5 text-soft">Nothing says this.</Command.Empty>
            {groups
              .filter(({ items }) => items.length > 0)
              .map(({ name, items }) => (
                <Command.Group
                  key={name}
                  heading={name}
                  className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-1.5 [&_[cmdk-group-heading]]:text-small [&_[cmdk-group-heading]]:text-soft"
                >
                  {items.map(({ key, says, shown }) => (
                    <Command.Item
                      key={key}
                      value={`${says} ${key}`}
                      className={`flex min-h-6 cursor-pointer items-baseline gap-1.5 rounded px-2 py-0.5 data-[selected=true]:bg-raised ${key === chosen ? 'font-semibold text-pine' : ''}`}
                      onSelect={() => {
                        setIsOpen(false);
                        onPick(key);
                      }}
                    >
                      {shown ?? says}
                    </Command.Item>
                  ))}
                </Command.Group>
              ))}
          </Command.List>
        </Command>
      </PopoverPanel>
    </Popover.Root>
  );
}
