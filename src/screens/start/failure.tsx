'use client';

import { useRouter } from 'next/navigation';
import { Button } from '@/ui/button';
import { Notice } from './notice';

type Props = { error: Error & { digest?: string }; onRetry: () => void };

/** What stands in place of a screen that failed: what is not lost, and what can be done. */
export function Failure({ error, onRetry }: Props) {
  const router = useRouter();
  return (
    <Notice title="This page could not be shown">
      <p>
        Something failed while it was made. Nothing was changed: what is in the tray and what was decided is
        kept. Try again; if it fails again, the log of the web application says why
        {error.digest ? ` under ${error.digest}` : ''}.
      </p>
      <p className="mt-2 flex gap-2">
        <Button tone="main" onClick={onRetry}>
          Try again
        </Button>
        <Button onClick={() => router.push('/')}>To the accounts</Button>
      </p>
    </Notice>
  );
}
