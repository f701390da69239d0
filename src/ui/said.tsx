import type { ReactNode } from 'react';

/** Why something is not here, in the words of the server; nothing while there is no error. */
export function ErrorText({
  error,
  isWhole = false,
}: {
  error: Pick<Error, 'message'> | null | undefined;
  /** it stands where a table or a list would */
  isWhole?: boolean;
}) {
  if (!error) return null;
  return (
    <p role="alert" className={`text-table text-rust ${isWhole ? 'p-4' : ''}`}>
      {error.message}
    </p>
  );
}

/** What is said where there is nothing, or not yet. */
export function EmptyState({ children, className = '' }: { children: ReactNode; className?: string }) {
  return <p className={`p-4 text-table text-soft ${className}`}>{children}</p>;
}
