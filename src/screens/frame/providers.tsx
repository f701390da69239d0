'use client';

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { NuqsAdapter } from 'nuqs/adapters/next/app';
import { useState, type ReactNode } from 'react';
import { Toaster } from 'sonner';
import { Declined } from '@/ui/ask';

export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            staleTime: 30_000,
            retry: (times, error) => !(error instanceof Declined) && times < 2,
            refetchOnWindowFocus: false,
          },
        },
      }),
  );
  return (
    <QueryClientProvider client={client}>
      <NuqsAdapter>{children}</NuqsAdapter>
      <Toaster
        position="bottom-left"
        offset={{ left: 164, bottom: 16 }}
        toastOptions={{
          classNames: {
            toast: '!bg-ink !text-paper !border-ink !rounded !font-sans',
            actionButton: '!bg-straw !text-ink',
          },
        }}
      />
    </QueryClientProvider>
  );
}
