'use client';

import { useState, type FocusEvent, type KeyboardEvent } from 'react';

/**
 * Makes a list one stop of Tab with arrows inside. Each item is given what `itemOf` says.
 * Keys that are pressed within a control inside an item are left to it, unless the control is the item itself.
 */
export function useRoving(count: number) {
  const [reached, setReached] = useState(0);
  const at = Math.max(0, Math.min(reached, count - 1));
  return {
    at,
    /** what the item is given */
    itemOf: (index: number) => ({ 'data-item': index, tabIndex: index === at ? 0 : -1 }),
    list: {
      onKeyDown(event: KeyboardEvent<HTMLElement>) {
        if (!(event.target instanceof HTMLElement) || !event.target.matches('[data-item]')) return;
        const to = {
          ...{ ArrowDown: at + 1, ArrowRight: at + 1, ArrowUp: at - 1, ArrowLeft: at - 1 },
          ...{ Home: 0, End: count - 1 },
        }[event.key];
        if (to === undefined || to < 0 || to >= count) return;
        event.preventDefault();
        setReached(to);
        event.currentTarget.querySelector<HTMLElement>(`[data-item="${to}"]`)?.focus();
      },
      onFocus({ target }: FocusEvent<HTMLElement>) {
        const index = Number(target.closest<HTMLElement>('[data-item]')?.dataset.item);
        if (!Number.isNaN(index)) setReached(index);
      },
    },
  };
}
