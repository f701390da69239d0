'use client';

import { Download } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { counted } from '@/core';
import { PopoverPanel } from '../explain';
import { saveCells, toClipboard, type Cells, type FileKind } from './cells';

type Props = {
  /** of the file, without its ending */
  name: string;
  cells: () => Cells;
  /** stands in a list that the arrows go through */
  isOutOfTabOrder?: boolean;
};

/** Saves or copies what is shown where no data table stands: a list of words, a grid, a plot. */
export function SaveMenu({ name, cells, isOutOfTabOrder }: Props) {
  const [isOpen, setIsOpen] = useState(false);
  async function save(kind: FileKind) {
    setIsOpen(false);
    const all = cells();
    await saveCells(all, name, kind);
    toast(`${counted(all.rows.length, 'row')} saved as “${name}.${kind}”`);
  }
  async function copy() {
    setIsOpen(false);
    const all = cells();
    await navigator.clipboard.writeText(toClipboard(all));
    toast(`${counted(all.rows.length, 'row')} copied: ${all.header.join(', ')}`);
  }
  const item = 'block min-h-6 w-full text-left text-pine hover:underline';
  return (
    <Popover.Root open={isOpen} onOpenChange={setIsOpen}>
      <Popover.Trigger
        aria-label={`Save or copy: ${name}`}
        tabIndex={isOutOfTabOrder ? -1 : undefined}
        className="flex size-6 shrink-0 items-center justify-center text-soft hover:text-ink"
      >
        <Download size={12} aria-hidden />
      </Popover.Trigger>
      <PopoverPanel label={`Save or copy: ${name}`}>
        <button type="button" className={item} onClick={() => void save('csv')}>
          Save as CSV
        </button>
        <button type="button" className={item} onClick={() => void save('xlsx')}>
          Save as XLSX
        </button>
        <button type="button" className={item} onClick={() => void copy()}>
          Copy as cells
        </button>
      </PopoverPanel>
    </Popover.Root>
  );
}
