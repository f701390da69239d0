'use client';

import { Info } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';

type Props = {
  /** what is explained, for those who hear it */
  about: string;
  children: ReactNode;
  /** what is pressed; a small sign where nothing is given */
  trigger?: ReactNode;
  /** reached by the keys of the table that it stands in */
  isOutOfTabOrder?: boolean;
  /** shown without a press, while the keys are at what it explains; the focus stays where it is */
  isShown?: boolean;
  className?: string;
};

/** An explanation at a press: of the mouse, a finger or a key. */
export function Explain({
  about,
  children,
  trigger,
  isOutOfTabOrder,
  isShown = false,
  className = '',
}: Props) {
  const [isOpen, setIsOpen] = useState(false);
  return (
    <Popover.Root open={isOpen || isShown} onOpenChange={setIsOpen}>
      <Popover.Trigger
        aria-label={trigger ? undefined : `What is ${about}?`}
        tabIndex={isOutOfTabOrder ? -1 : undefined}
        className={`inline-flex min-h-6 min-w-3 items-center justify-center ${trigger ? 'text-pine underline decoration-dotted underline-offset-2' : 'text-soft hover:text-ink'} ${className}`}
      >
        {trigger ?? <Info size={10} aria-hidden />}
      </Popover.Trigger>
      <PopoverPanel label={about} keepsFocus={isShown}>
        {children}
      </PopoverPanel>
    </Popover.Root>
  );
}

/** What a popover shows, the same everywhere. */
export function PopoverPanel({
  label,
  align = 'start',
  keepsFocus = false,
  onCloseAutoFocus,
  className = '',
  children,
}: {
  label: string;
  align?: 'start' | 'center' | 'end';
  /** where the focus is, it stays */
  keepsFocus?: boolean;
  onCloseAutoFocus?: (event: Event) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Popover.Portal>
      <Popover.Content
        aria-label={label}
        align={align}
        sideOffset={4}
        collisionPadding={8}
        onOpenAutoFocus={(event) => keepsFocus && event.preventDefault()}
        onCloseAutoFocus={(event) => (keepsFocus ? event.preventDefault() : onCloseAutoFocus?.(event))}
        className={`z-40 max-h-[min(560px,var(--radix-popover-content-available-height))] max-w-72 overflow-y-auto rounded border border-line bg-sheet px-3 py-2 text-table font-normal whitespace-normal text-ink shadow-lg ${className}`}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  );
}
