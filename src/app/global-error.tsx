'use client';

import '@/ui/theme.css';
import { Failure } from '@/screens/start/failure';

/** Stands in for the whole page where even its frame could not be drawn. */
export default function GlobalError({
  error,
  reset,
}: {
  error: Error & { digest?: string };
  reset: () => void;
}) {
  return (
    <html lang="en">
      <body className="font-sans antialiased">
        <Failure error={error} onRetry={reset} />
      </body>
    </html>
  );
}
