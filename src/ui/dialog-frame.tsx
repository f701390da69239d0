'use client';

import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { focusWork } from './focus-work';

type Props = {
  title: ReactNode;
  /** a sentence below the title */
  says?: ReactNode;
  /** px */
  width?: number;
  /** its middle scrolls by itself: as high as the screen allows, or as what it holds needs, px */
  isTall?: boolean;
  needs?: number;
  onClose: () => void;
  children: ReactNode;
};

/** A page over the screen. Closed, the table of the screen has the focus again. */
export function DialogFrame({ title, says, width = 640, isTall = false, needs, onClose, children }: Props) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content
          {...(says === undefined && { 'aria-describedby': undefined })}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            focusWork();
          }}
          className={`fixed top-1/2 left-1/2 z-50 flex max-h-[86vh] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded border border-line bg-sheet shadow-xl ${isTall ? '' : 'overflow-y-auto'}`}
          style={{ width, ...(isTall && { height: needs === undefined ? '86vh' : `min(86vh, ${needs}px)` }) }}
        >
          <div className={`shrink-0 px-5 ${isTall ? 'border-b border-line py-3' : 'pt-4'}`}>
            <Dialog.Title className="font-title text-title font-bold">{title}</Dialog.Title>
            {says !== undefined && (
              <Dialog.Description className="text-table text-soft">{says}</Dialog.Description>
            )}
          </div>
          {isTall ? children : <div className="flex flex-col gap-2 px-5 pt-2 pb-4">{children}</div>}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
