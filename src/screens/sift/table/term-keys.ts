import type { KeyboardEvent } from 'react';
import type { Choice } from '../hand/choice/use-choice';

export type KeyActions = {
  choice: Choice;
  /** what Enter does while rows are marked; undefined while none is */
  putBatch: (() => void) | undefined;
  nextUnseen: () => void;
  toggleKeywords: () => void;
};

/**
 * The keys that decide about terms; single letters only where they are switched on.
 * @returns whether the key was one of them
 */
export function onTermKey(event: KeyboardEvent, actions: KeyActions, single: boolean): boolean {
  if (event.ctrlKey || event.metaKey) return false;
  const { choice, putBatch } = actions;
  const action =
    event.key === 'Enter'
      ? (putBatch ?? (() => void choice.put()))
      : single
        ? singleKey(event.key, actions)
        : undefined;
  action?.();
  return action !== undefined;
}

function singleKey(key: string, { choice, nextUnseen, toggleKeywords }: KeyActions) {
  const keys: Record<string, () => void> = {
    m: choice.turnMatch,
    p: choice.turnPlace,
    w: () => void choice.stopWhole(),
    b: () => void choice.stopThereToo(),
    o: () => void choice.keep(),
    l: () => void choice.setAside(),
    v: () => void choice.takeVariants(choice.variants?.offers ?? []),
    n: nextUnseen,
    k: toggleKeywords,
    f: () => document.getElementById('first-filter')?.focus(),
  };
  return /^[1-9]$/.test(key) ? () => choice.toggle(Number(key) - 1) : keys[key];
}
