'use client';

import type { ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { useAccount } from './account-context';

/**
 * The thing being decided: what a screen puts above the tray. The actions stay in sight while the rest scrolls. While the
 * panel is folded, nothing of it is shown.
 */
export function InHand({
  title,
  actions,
  children,
}: {
  title?: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
}) {
  const { body, actions: actionsAt } = useAccount().inHand;
  if (!body || !actionsAt) return null;
  return (
    <>
      {createPortal(
        <>
          <div className="flex flex-wrap items-baseline gap-x-2">
            <h2 className="font-title text-hand leading-snug font-bold">In hand</h2>
            {title && <p className="text-table font-semibold break-words">{title}</p>}
          </div>
          {children}
        </>,
        body,
      )}
      {actions && createPortal(actions, actionsAt)}
    </>
  );
}
