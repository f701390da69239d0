import type { Few, Touched } from '@/contracts/common';
import { StateIcon } from '@/ui/state-icon';
import { counted, listed } from '@/core';

/** What a choice would hurt, in sentences: the protected terms it stops, and the live keywords it touches. */
export function Hurts({ protectedTerms, touched }: { protectedTerms: Few<string>; touched: Touched }) {
  return (
    <>
      {protectedTerms.count > 0 && (
        <p className="text-rust">
          <StateIcon kind="hurting" /> Would stop {counted(protectedTerms.count, 'protected term')}{' '}
          <span className="text-soft">(of all days, wherever they ran)</span>:{' '}
          {listed(protectedTerms.first, protectedTerms.count)}.
        </p>
      )}
      {touched.map((keywords) => (
        <p key={keywords.severity} className="text-rust">
          <StateIcon kind="hurting" /> {counted(keywords.count, 'live keyword')} {keywords.severity}:{' '}
          {listed(
            keywords.first.map((k) => `“${k.text}” (${k.match}) in ${k.adGroup}`),
            keywords.count,
          )}
          .
        </p>
      ))}
    </>
  );
}
