import type { KeyboardEvent } from 'react';
import type { Pass } from './use-pass';

const SCREENFUL = 15;

/** What is done by keys while the pass has the focus; single letters only where they are switched on. */
export function onPassKey(event: KeyboardEvent, pass: Pass, single: boolean): void {
  if (event.altKey || event.ctrlKey || event.metaKey || event.target !== event.currentTarget) return;
  const { at, item, move } = pass;
  const keys: Record<string, () => void> = {
    ArrowDown: () => move(at + 1),
    ArrowUp: () => move(at - 1),
    PageDown: () => move(at + SCREENFUL),
    PageUp: () => move(at - SCREENFUL),
    Home: () => move(0),
    End: () => move(Number.MAX_SAFE_INTEGER),
    Enter: () => void (event.shiftKey && item ? pass.putStep(item.step) : pass.put()),
    ...(single && { p: pass.turnPlace, l: () => void pass.leave(), o: () => void pass.keep() }),
  };
  const action = keys[event.key];
  if (!action) return;
  event.preventDefault();
  action();
}
