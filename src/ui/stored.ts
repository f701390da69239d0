'use client';

import { useSyncExternalStore } from 'react';

const listeners = new Set<() => void>();
const read = new Map<string, { text: string | null; value: unknown }>();

/**
 * What this browser remembers under a name, and how to set it. On the server, and where nothing is remembered, it is
 * what `parse` makes of null. All that use the same name show the same.
 * @param parse must be the same function in every render; it is asked once a text
 */
export function useStored<T>(name: string, parse: (text: string | null) => T): [T, (next: string) => void] {
  const value = useSyncExternalStore(
    subscribe,
    () => valueOf(name, parse),
    () => unstored(name, parse),
  );
  return [value, (next) => store(name, next)];
}

/** Remembers a text, and tells all that show it. */
export function store(name: string, text: string): void {
  localStorage.setItem(name, text);
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

function valueOf<T>(name: string, parse: (text: string | null) => T): T {
  const text = typeof localStorage === 'undefined' ? null : localStorage.getItem(name);
  const known = read.get(name);
  if (known && known.text === text) return known.value as T;
  const value = parse(text);
  read.set(name, { text, value });
  return value;
}

const nothing = new Map<string, unknown>();

function unstored<T>(name: string, parse: (text: string | null) => T): T {
  if (!nothing.has(name)) nothing.set(name, parse(null));
  return nothing.get(name) as T;
}
