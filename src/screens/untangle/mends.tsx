'use client';

import { useMoney } from '@/screens/frame/money';
import { formatConversions, formatCount } from '@/ui/format';
import { Radio } from '@/ui/radio';
import { ErrorText } from '@/ui/said';
import type { ConflictChoice } from './use-conflict';

/** The ways out of the conflict in hand, side by side, each with what it would open and what stays stopped. */
export function Mends({ conflict }: { conflict: ConflictChoice }) {
  const money = useMoney();
  const { line, mends, at, choose } = conflict;
  if (!line) return null;
  const against = line.keyword?.text ?? line.protected.first[0];
  return (
    <section
      aria-label="Mends"
      className="max-h-[45%] shrink-0 overflow-y-auto border-t border-line px-4 py-2"
    >
      <h2 className="text-table font-semibold">
        “{line.negative.text}” against “{against}”: what each mend does
      </h2>
      <ErrorText error={conflict.mendsError} />
      {!mends && <p className="mt-1 text-table text-soft">Each is being tried…</p>}
      {mends && (
        <table className="mt-1 w-full text-table">
          <thead className="text-small text-soft">
            <tr>
              <th className="text-left font-normal">mend</th>
              <th className="text-right font-normal">opens terms</th>
              <th className="text-right font-normal">conv. before</th>
              <th className="text-right font-normal">without return</th>
              <th className="text-right font-normal">still stops</th>
              <th className="w-28 font-normal" />
            </tr>
          </thead>
          <tbody>
            {mends.mends.map(({ said, opens, stillStops, letsPass, isProposed }, i) => (
              <tr key={said} className="border-t border-line">
                <td>
                  <label className="flex items-center gap-1">
                    <Radio name="mend" checked={i === at} onChange={() => choose(i)} />
                    <span className="min-w-0 break-words">
                      {said} <span className="text-small text-soft">{i + 1}</span>
                    </span>
                  </label>
                </td>
                {opens ? (
                  <>
                    <td className="text-right">{formatCount(opens.terms)}</td>
                    <td className={`text-right ${opens.conversions > 0 ? 'text-moss' : ''}`}>
                      {opens.conversions > 0 ? '+' : ''}
                      {formatConversions(opens.conversions)}
                    </td>
                    <td className={`text-right ${opens.wastedMicros > 0 ? 'text-rust' : ''}`}>
                      {money(opens.wastedMicros)}
                    </td>
                  </>
                ) : (
                  <td colSpan={3} className="text-right text-soft">
                    not known
                  </td>
                )}
                <td className="text-right">
                  {formatCount(stillStops)} of {formatCount(mends.stops)}
                </td>
                <td className="pl-3 text-small text-soft">
                  {isProposed ? 'proposed' : letsPass ? '' : 'frees nothing'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
