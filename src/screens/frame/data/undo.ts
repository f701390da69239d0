'use client';

import { useSyncExternalStore } from 'react';
import { toast } from 'sonner';

type Undoable = { said: string; undo: () => Promise<unknown> };

/** What was done last, newest at the end; Ctrl+Z takes back from there. */
const done: Undoable[] = [];

/** What is under way and may offer an undo when it is done. */
const underWay = new Set<Promise<unknown>>();

/** Notes a work that something is done by until it ends: whoever undoes meanwhile means this, and not what was before. */
export async function doing<T>(work: Promise<T>): Promise<T> {
  underWay.add(work);
  try {
    return await work;
  } finally {
    underWay.delete(work);
  }
}

async function untilNothingIsUnderWay(): Promise<void> {
  while (underWay.size > 0) {
    await Promise.allSettled(underWay);
    await new Promise((resolve) => setTimeout(resolve)); // whoever did it offers its undo now
  }
}

/** Says what was done and offers to take it back, here and by Ctrl+Z. */
export function offerUndo(said: string, undo: () => Promise<unknown>): void {
  const entry = { said, undo };
  done.push(entry);
  toast(said, { action: { label: 'Undo', onClick: () => void takeBack(entry) } });
}

/** Takes back what was done last, if anything was; what is still under way is waited for. */
export async function undoLast(): Promise<void> {
  await untilNothingIsUnderWay();
  const entry = done.at(-1);
  if (entry) await takeBack(entry);
  else toast('There is nothing to undo here. What was sent is undone in the Ledger.');
}

async function takeBack(entry: Undoable): Promise<void> {
  const at = done.indexOf(entry);
  if (at < 0) return;
  done.splice(at, 1);
  noteUndoing(1);
  try {
    await doing(entry.undo());
    toast(`Undone: ${entry.said}`);
  } catch (error) {
    done.push(entry);
    toast.error(error instanceof Error ? error.message : 'It could not be undone.');
  } finally {
    setTimeout(() => noteUndoing(-1)); // what it brought back is shown first
  }
}

/** How many undos are under way, and who wants to know. */
let undoing = 0;
const listeners = new Set<() => void>();

function noteUndoing(more: number): void {
  undoing += more;
  for (const listener of listeners) listener();
}

/** Whether something is being taken back, until what it changed is on the screen. */
export function useIsUndoing(): boolean {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => undoing > 0,
    () => false,
  );
}
