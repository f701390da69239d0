'use client';

import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Button } from '@/ui/button';

/** Cells from a spreadsheet, with their header; read like any file. */
export function PasteDialog({ onPaste, onClose }: { onPaste: (text: string) => void; onClose: () => void }) {
  const [text, setText] = useState('');
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-50 flex w-[720px] -translate-x-1/2 -translate-y-1/2 flex-col gap-2 rounded border border-line bg-sheet p-5 shadow-xl">
          <Dialog.Title className="font-title text-title font-bold">Paste cells</Dialog.Title>
          <Dialog.Description className="text-table text-soft">
            Copy cells in a spreadsheet with their header line, and paste them here. They are read like a
            file: nothing is stored before you say so.
          </Dialog.Description>
          <textarea
            autoFocus
            aria-label="Pasted cells"
            className="h-64 w-full rounded border border-line bg-paper p-2 font-mono text-small"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <div className="flex gap-2">
            <Button
              tone="main"
              disabled={text.trim() === ''}
              onClick={() => {
                onPaste(text);
                onClose();
              }}
            >
              Read these cells
            </Button>
            <Button onClick={onClose}>Not now</Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
