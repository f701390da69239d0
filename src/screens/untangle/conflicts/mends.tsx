'use client';

import { useMoney } from '@/screens/frame/money';
import { formatConversions, formatCount } from '@/ui/format';
import { Radio } from '@/ui/radio';
import { MOST_NAMED, type MendLine } from '@/contracts/untangle';
import { ErrorText } from '@/ui/said';
import type { ConflictChoice } from './use-conflict';

const FIGURE = 'pl-3 text-right whitespace-nowrap';

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
              <th className="w-full text-left font-normal">mend</th>
              {['opens terms', 'conv. before', 'without return', 'still stops'].map((name) => (
                <th key={name} className={`${FIGURE} font-normal`}>
                  {name}
                </th>
              ))}
              <th className="min-w-24 font-normal">
                <span className="sr-only">What it is worth</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {mends.mends.map(({ said, changes, opens, stillStops, letsPass, isProposed }, i) => (
              <tr key={said} className="border-t border-line">
                <td>
                  <label className="flex items-center gap-1">
                    <Radio name="mend" checked={i === at} onChange={() => choose(i)} />
                    <span className="min-w-0 break-words">
                      {said} <span className="text-small text-soft">{i + 1}</span>
                      <Named changes={changes} />
                    </span>
                  </label>
                </td>
                {opens ? (
                  <>
                    <td className={FIGURE}>{formatCount(opens.terms)}</td>
                    <td className={`${FIGURE} ${opens.conversions > 0 ? 'text-moss' : ''}`}>
                      {opens.conversions > 0 ? '+' : ''}
                      {formatConversions(opens.conversions)}
                    </td>
                    <td className={`${FIGURE} ${opens.wastedMicros > 0 ? 'text-rust' : ''}`}>
                      {money(opens.wastedMicros)}
                    </td>
                  </>
                ) : (
                  <td colSpan={3} className={`${FIGURE} text-soft`}>
                    not known
                  </td>
                )}
                <td className={FIGURE}>
                  {formatCount(stillStops)} of {formatCount(mends.stops)}
                </td>
                <td className="pl-3 text-small whitespace-nowrap text-soft">
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

/** What takes the negative's place, where it is more than the sentence names. */
function Named({ changes }: { changes: MendLine['changes'] }) {
  const put = changes.flatMap((change) => (change.kind === 'add negative' ? [change] : []));
  if (put.length <= MOST_NAMED) return null;
  return (
    <span className="block text-small text-soft">
      {put.map(({ text, match }) => `“${text}” (${match})`).join(', ')}
    </span>
  );
}
