'use client';

import type { MatchType } from '@/core';
import { Hurts } from '@/screens/frame/hurts';
import { useMoney } from '@/screens/frame/money';
import { Key } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { Radio } from '@/ui/radio';
import { formatKnown, sumIn } from './sums';
import type { RemainderChoice, Weighed } from './use-remainder';

const MATCHES = ['phrase', 'broad', 'exact'] as const satisfies MatchType[];

type Props = { remainder: RemainderChoice; weighed: Weighed };

/** What the chosen negatives would stop in the sheet and in the account, and what they would hit there. */
export function WeighedNegatives({ remainder, weighed }: Props) {
  const money = useMoney();
  const { match, setMatch, takesForms, setTakesForms } = remainder;
  const { negatives } = weighed;
  const areWords = negatives.length > 0 && negatives.every(({ text }) => !text.includes(' '));
  return (
    <>
      <fieldset className="mt-2 flex flex-wrap items-center gap-x-2 text-table">
        <legend className="sr-only">Match type</legend>
        Stop as <Key>m</Key>
        {MATCHES.map((one) => (
          <label key={one} className="flex items-center gap-0.5">
            <Radio name="match" checked={match === one} onChange={() => setMatch(one)} />
            {one}
          </label>
        ))}
      </fieldset>
      <table className="mt-1 w-full border-y border-line text-table">
        <caption className="sr-only">What each would stop</caption>
        <thead className="text-small text-soft">
          <tr>
            <th className="text-left font-normal">negative</th>
            <th className="text-right font-normal">ideas</th>
            <th className="text-right font-normal">terms here</th>
            <th className="text-right font-normal">cost</th>
            <th className="text-right font-normal">conv.</th>
          </tr>
        </thead>
        <tbody>
          {negatives.map(({ text, ideas, kept, weight, refusal }) => (
            <tr key={text}>
              <td className="font-semibold break-words">
                {text}
                {kept > 0 && (
                  <span className="block text-small font-normal text-rust">
                    stops {formatCount(kept)} kept
                  </span>
                )}
              </td>
              {refusal === null ? (
                <>
                  <td className="text-right">{formatCount(ideas)}</td>
                  <td className="text-right">{formatCount(weight.terms)}</td>
                  <td className="text-right">{money(sumIn(weight, 'costMicros'))}</td>
                  <td className="text-right">{formatKnown(sumIn(weight, 'conversions'))}</td>
                </>
              ) : (
                <td colSpan={4} className="text-right text-small text-rust">
                  {refusal}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="min-h-6 text-table text-pine hover:underline"
        aria-pressed={takesForms}
        onClick={() => setTakesForms(!takesForms)}
      >
        {takesForms ? 'With the other forms that occur' : 'Without other forms'} <Key>v</Key>
      </button>
      {areWords && match !== 'exact' && (
        <p className="text-small text-soft">For single words, phrase and broad stop the same.</p>
      )}
      <Hurts protectedTerms={weighed.protected} touched={weighed.keywords} />
      {weighed.protected.count === 0 && weighed.keywords.length === 0 && (
        <p className="text-table text-moss">Safe: touches no live keyword, no protected term.</p>
      )}
    </>
  );
}
