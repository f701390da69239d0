import type { ReactNode } from 'react';
import { Logo } from '@/ui/state-icon';

/** A page that stands outside of every account, with its title. */
export function StartPage({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <p className="flex items-center gap-2.5 font-title text-brand font-bold">
        <Logo /> Gate Post
      </p>
      <h1 className="mt-6 font-title text-figure font-bold">{title}</h1>
      {children}
    </main>
  );
}
