'use client';

import type { ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { useAccount } from './account-context';

/** The thing being decided: what a screen puts above the tray. */
export function InHand({ title, children }: { title?: ReactNode; children: ReactNode }) {
  const { inHand } = useAccount();
  if (!inHand) return null;
  return createPortal(
    <>
      <h2 className="font-title text-[17px] font-bold">
        In hand {title && <span className="font-sans text-[13px] font-normal text-soft">{title}</span>}
      </h2>
      {children}
    </>,
    inHand,
  );
}
