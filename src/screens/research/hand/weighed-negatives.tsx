'use client';

import { Hurts } from '@/screens/frame/hurts';
import { useMoney } from '@/screens/frame/money';
import { Key } from '@/ui/button';
import { formatConversions, formatCount } from '@/ui/format';
import { Radio } from '@/ui/radio';
import type { Match, RemainderChoice } from './use-remainder';

const NAMES: Record<Match, string> = { phrase: 'phrase', broad: 'broad', exact: 'exact' };

/** What the chosen negatives would stop in the sheet and in the account, and what they would hit there. */
export function WeighedNegatives({
  remainder,
  weighed,
}: {
  remainder: RemainderChoice;
  weighed: NonNullable<RemainderChoice['weighed']>;
}) {
  const money = useMoney();
  const { match, setMatch, takesForms, setTakesForms, line } = remainder;
  return (
    <>
      <fieldset className="mt-2 flex flex-wrap items-center gap-x-2 text-table">
        <legend className="sr-only">Match type</legend>
        Stop as <Key>m</Key>
        {(Object.keys(NAMES) as Match[]).map((one) => (
          <label key={one} className="flex items-center gap-0.5">
            <Radio name="match" checked={match === one} onChange={() => setMatch(one)} />
            {NAMES[one]}
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
          {weighed.negatives.map(({ text, ideas, weight, refusal }) => (
            <tr key={text}>
              <td className="font-semibold break-words">{text}</td>
              {refusal === null ? (
                <>
                  <td className="text-right">{formatCount(ideas)}</td>
                  <td className="text-right">{formatCount(weight.terms)}</td>
                  <td className="text-right">{money(weight.costMicros ?? 0)}</td>
                  <td className="text-right">{formatConversions(weight.conversions ?? 0)}</td>
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
      {line && line.forms.length > 1 && (
        <button
          type="button"
          className="min-h-6 text-table text-pine hover:underline"
          aria-pressed={takesForms}
          onClick={() => setTakesForms(!takesForms)}
        >
          {takesForms ? `Only ${line.forms[0]!}` : `With ${line.forms.slice(1).join(', ')}`} <Key>v</Key>
        </button>
      )}
      <Hurts protectedTerms={weighed.protected} touched={weighed.keywords} />
    </>
  );
}
