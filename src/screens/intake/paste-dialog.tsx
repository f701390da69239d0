'use client';

import { useState } from 'react';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';

/** Cells from a spreadsheet, with their header; read like any file. */
export function PasteDialog({ onPaste, onClose }: { onPaste: (text: string) => void; onClose: () => void }) {
  const [text, setText] = useState('');
  return (
    <DialogFrame
      title="Paste cells"
      says={
        'Copy cells in a spreadsheet with their header line, and paste them here. They are read like a file: nothing is stored before you say so.'
      }
      width={720}
      onClose={onClose}
    >
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
    </DialogFrame>
  );
}
