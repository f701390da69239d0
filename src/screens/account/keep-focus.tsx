'use client';

import { createContext, useContext, useLayoutEffect, useRef, type FocusEvent, type ReactNode } from 'react';

type Focused = { setting: string; at: number; element: Element };

const LastFocused = createContext<{ current: Focused | null }>({ current: null });

/** Remembers which field of which setting has the focus, for a setting's fields begin anew once it is set. */
export function KeepsFocus({ children }: { children: ReactNode }) {
  const lastRef = useRef<Focused | null>(null);
  return <LastFocused value={lastRef}>{children}</LastFocused>;
}

/**
 * Gives the focus back to a setting whose focused field or button went away: to what stands there now, else to its first
 * field.
 * @param setting the id of the setting
 * @returns what its form is given
 */
export function useKeptFocus(setting: string) {
  const lastRef = useContext(LastFocused);
  const form = useRef<HTMLFormElement>(null);
  const fields = () => [...form.current!.querySelectorAll<HTMLElement>('input, summary, button')];
  useLayoutEffect(() => {
    const was = lastRef.current;
    if (was?.setting !== setting || was.element.isConnected) return;
    const [first] = fields();
    for (const field of [fields()[was.at], first])
      if (document.activeElement === document.body) field?.focus();
  });
  return {
    ref: form,
    onFocus({ target }: FocusEvent<HTMLElement>) {
      lastRef.current = { setting, at: fields().indexOf(target), element: target };
    },
  };
}
