'use client';

import { Failure } from '@/screens/start/failure';

export default function ErrorPage({
  error,
  reset,
}: {
  error: Error & { digest?: string };
  reset: () => void;
}) {
  return <Failure error={error} onRetry={reset} />;
}
