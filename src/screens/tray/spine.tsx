'use client';

import { PanelRightOpen } from 'lucide-react';
import { useMoney } from '@/screens/frame/money';
import { formatCount } from '@/ui/format';
import { counted } from '@/core';

type Props = { count: number; costMicros: number; onUnfold: () => void };

/** The panel folded: how many changes wait in the tray, and the cost that they stop. */
export function Spine({ count, costMicros, onUnfold }: Props) {
  const cost = useMoney()(costMicros);
  return (
    <button
      type="button"
      className="flex h-full w-full flex-col items-center gap-3 py-3 hover:bg-raised"
      aria-label={`Open In hand and the Tray: ${counted(count, 'change')}, ${cost} stopped`}
      onClick={onUnfold}
    >
      <PanelRightOpen size={16} aria-hidden className="text-soft" />
      <span className="font-title text-hand font-bold">{formatCount(count)}</span>
      <span className="text-table text-soft [writing-mode:vertical-rl]">
        {count === 1 ? 'change' : 'changes'} in the tray
      </span>
      {count > 0 && <span className="font-semibold text-timber [writing-mode:vertical-rl]">{cost}</span>}
    </button>
  );
}
