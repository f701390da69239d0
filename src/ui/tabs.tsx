'use client';

import { Tabs } from 'radix-ui';
import type { ReactNode } from 'react';

export type Tab<Value extends string> = {
  value: Value;
  name: string;
  /** how many there are of it; empty while it is not known */
  count?: string;
  /** something in it wants to be looked at */
  isHot?: boolean;
};

type Props<Value extends string> = {
  label: string;
  tabs: readonly Tab<Value>[];
  value: Value;
  onChange: (value: Value) => void;
  /** what stands at the end of the bar */
  beside?: ReactNode;
  className?: string;
  /** what the chosen tab shows */
  children: ReactNode;
};

/** Views of the same thing: one stop of Tab, arrows go from one to the next. */
export function TabbedView<Value extends string>({
  label,
  tabs,
  value,
  onChange,
  beside,
  className = '',
  children,
}: Props<Value>) {
  return (
    <Tabs.Root
      value={value}
      onValueChange={(next) => onChange(next as Value)}
      activationMode="manual"
      className="flex min-h-0 min-w-0 flex-1 flex-col"
    >
      <div
        className={`flex flex-wrap items-center gap-x-3 border-b border-line text-table whitespace-nowrap ${className}`}
      >
        <Tabs.List aria-label={label} className="flex flex-wrap gap-x-3">
          {tabs.map((tab) => (
            <Tabs.Trigger
              key={tab.value}
              value={tab.value}
              className={`-mb-px border-b-2 py-1.5 ${value === tab.value ? 'border-pine font-semibold' : 'border-transparent text-soft hover:text-ink'} ${tab.isHot ? 'text-rust' : ''}`}
            >
              {tab.name}{' '}
              {tab.count !== undefined && <span data-testid={`count-${tab.value}`}>{tab.count}</span>}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {beside}
      </div>
      <Tabs.Content value={value} tabIndex={-1} className="flex min-h-0 min-w-0 flex-1 flex-col outline-none">
        {children}
      </Tabs.Content>
    </Tabs.Root>
  );
}
