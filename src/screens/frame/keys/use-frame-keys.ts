'use client';

import { useEffect } from 'react';
import { focusWork } from '@/ui/focus-work';
import { undoLast } from '../data/undo';
import { isTyping } from './typing';

/** The keys that act on every screen: Ctrl Z undoes what was decided last, Esc leads back to the table. */
export function useFrameKeys() {
  useUndoKey();
  useEscapeToWork();
}

function useUndoKey() {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        event.key.toLowerCase() !== 'z' ||
        !(event.ctrlKey || event.metaKey) ||
        event.shiftKey ||
        isTyping(event.target)
      )
        return;
      event.preventDefault();
      void undoLast();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

/** Esc leads back to the table, from wherever nothing else is closed by it. */
function useEscapeToWork() {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented || !(event.target instanceof Element)) return;
      if (event.target.closest('[role=dialog], [role=menu], [role=listbox], [role=grid]')) return;
      focusWork();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
