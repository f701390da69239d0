import type { ReactNode } from 'react';
import { Logo } from '@/ui/state-icon';

/** A page that says one thing: that something is not there, failed, or is on its way. */
export function Notice({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto flex max-w-lg flex-1 flex-col gap-1 px-6 py-16">
      <Logo />
      <h1 className="mt-3 font-title text-figure font-bold">{title}</h1>
      {children}
    </main>
  );
}
