'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { Notice } from './notice';

type Props = {
  error: Error & { digest?: string };
  onRetry: () => void;
  /** when what was down answers again */
  onBack?: () => void;
};

const EVERY_MS = 3_000;

/** What stands in place of a screen that failed: what is down or wrong, what is not lost, and what can be done. */
export function Failure({ error, onRetry, onBack = () => window.location.reload() }: Props) {
  const router = useRouter();
  const down = useDown(onBack);
  return (
    <Notice title={down === null ? 'This page could not be shown' : 'Gate Post is not all there'}>
      {down === null ? (
        <p>
          Something failed while it was made. Nothing was changed: what is in the tray and what was decided is
          kept. Try again; if it fails again, the log of the web application says why
          {error.digest ? ` under ${error.digest}` : ''}.
        </p>
      ) : (
        <p role="status">
          {down} What is in the tray and what was decided is kept. This page comes back by itself.
        </p>
      )}
      <p className="mt-2 flex gap-2">
        <Button tone="main" onClick={onRetry}>
          Try again
        </Button>
        <Button onClick={() => router.push('/')}>To the accounts</Button>
      </p>
    </Notice>
  );
}

/**
 * What is down, in words; null where all answers, or it is not known yet.
 * @param onBack is told once when what was down answers again
 */
function useDown(onBack: () => void): string | null {
  const [down, setDown] = useState<string | null>(null);
  useEffect(() => {
    const look = () =>
      ask('/api/health').then(
        () => down !== null && onBack(),
        (error: unknown) => setDown(error instanceof Error ? error.message : null),
      );
    if (down === null) void look();
    const timer = setInterval(() => void (down !== null && look()), EVERY_MS);
    return () => clearInterval(timer);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what comes back is told by the newest one
  }, [down]);
  return down;
}
