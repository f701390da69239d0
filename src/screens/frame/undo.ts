'use client';

import { toast } from 'sonner';

type Undoable = { said: string; undo: () => Promise<unknown> };

/** What was done last, newest at the end; Ctrl+Z takes back from there. */
const done: Undoable[] = [];

/** Says what was done and offers to take it back, here and by Ctrl+Z. */
export function offerUndo(said: string, undo: () => Promise<unknown>): void {
  const entry = { said, undo };
  done.push(entry);
  toast(said, { action: { label: 'Undo', onClick: () => void takeBack(entry) } });
}

/** Takes back what was done last, if anything was. */
export async function undoLast(): Promise<void> {
  const entry = done.at(-1);
  if (entry) await takeBack(entry);
  else toast('There is nothing to undo here. What was sent is undone in the Ledger.');
}

async function takeBack(entry: Undoable): Promise<void> {
  const at = done.indexOf(entry);
  if (at < 0) return;
  done.splice(at, 1);
  try {
    await entry.undo();
    toast(`Undone: ${entry.said}`);
  } catch (error) {
    done.push(entry);
    toast.error(error instanceof Error ? error.message : 'It could not be undone.');
  }
}
