'use client';

import { useEffect } from 'react';
import type { SiftUrl } from '../sift-url';
import { PassHolder } from './pass-holder';
import { PassInHand } from './pass-in-hand';
import { PassSurface } from './pass-surface';
import { usePass } from './use-pass';

type Props = { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void };

/** The guided pass in the place of the terms. */
export function PassScreen({ url, onChange }: Props) {
  const pass = usePass(url.days);
  const isThere = pass.answer !== undefined;
  // Whoever comes here goes on by keys.
  useEffect(() => {
    if (isThere) document.getElementById('pass')?.focus();
  }, [isThere]);
  return (
    <>
      <header className="flex items-baseline gap-3 border-b border-line bg-paper px-4 py-1.5">
        <h1 className="font-title text-title leading-7 font-bold">Sift</h1>
        <p className="min-w-0 flex-1 text-soft">
          What surely can’t pay: words at fault first, then terms that surely miss, then what is left by cost.
        </p>
        <PassHolder />
        <button
          type="button"
          className="min-h-6 text-table whitespace-nowrap text-pine hover:underline"
          onClick={() => onChange({ show: 'table' })}
        >
          Back to the terms
        </button>
      </header>
      <section aria-label="The guided pass" className="flex min-h-0 min-w-0 flex-1 flex-col">
        <PassSurface pass={pass} />
      </section>
      <PassInHand pass={pass} />
    </>
  );
}
