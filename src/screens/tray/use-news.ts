'use client';

import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import type { TrayChange, TrayView } from '@/contracts/tray';
import { useAccount } from '@/screens/frame/account-context';
import { newsOf } from './news';

/** Tells what other people put in the tray since it was looked at last. */
export function useNews(view: TrayView | undefined): void {
  const { me, summary } = useAccount();
  const known = useRef<{ slug: string; changes: readonly TrayChange[] } | null>(null);
  useEffect(() => {
    if (!view) return;
    const before = known.current;
    known.current = { slug: summary.slug, changes: view.changes };
    if (before?.slug !== summary.slug) return;
    for (const said of newsOf(before.changes, view.changes, me.name)) toast(said);
  }, [view, me, summary.slug]);
}
