import type { KeyboardEvent } from 'react';
import type { Choice } from '../hand/choice/use-choice';

const SCREENFUL = 18;

export type KeyActions = {
  cursor: number;
  choice: Choice;
  move: (to: number) => void;
  /** marks the row in hand, and all that the filters show; takes all marks off */
  mark: () => void;
  markAll: () => void;
  unmarkAll: () => void;
  /** what Enter does while rows are marked; undefined while none is */
  putBatch: (() => void) | undefined;
  nextUnseen: () => void;
  toggleKeywords: () => void;
};

/** All that is done by keys while the table has the focus; single letters only where they are switched on. */
export function onTableKey(event: KeyboardEvent, actions: KeyActions, single: boolean): void {
  if (event.altKey || event.target !== event.currentTarget) return;
  const action =
    event.ctrlKey || event.metaKey
      ? event.key.toLowerCase() === 'a'
        ? actions.markAll
        : undefined
      : (movingKeys(actions)[event.key] ?? (single ? singleKey(event.key, actions) : undefined));
  if (!action) return;
  event.preventDefault();
  action();
}

function movingKeys({ cursor, move, mark, unmarkAll, putBatch, choice }: KeyActions) {
  const keys: Record<string, () => void> = {
    ArrowDown: () => move(cursor + 1),
    ArrowUp: () => move(cursor - 1),
    PageDown: () => move(cursor + SCREENFUL),
    PageUp: () => move(cursor - SCREENFUL),
    Home: () => move(0),
    End: () => move(Number.MAX_SAFE_INTEGER),
    Enter: putBatch ?? (() => void choice.put()),
    ' ': mark,
    Escape: unmarkAll,
  };
  return keys;
}

function singleKey(key: string, { choice, nextUnseen, toggleKeywords }: KeyActions) {
  const keys: Record<string, () => void> = {
    m: choice.turnMatch,
    p: choice.turnPlace,
    w: () => void choice.stopWhole(),
    o: () => void choice.keep(),
    l: () => void choice.setAside(),
    v: () => void choice.takeVariants(choice.variants?.offers ?? []),
    n: nextUnseen,
    k: toggleKeywords,
    f: () => document.getElementById('first-filter')?.focus(),
  };
  return /^[1-9]$/.test(key) ? () => choice.toggle(Number(key) - 1) : keys[key];
}
