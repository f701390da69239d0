'use client';

import { noFigures, ratios } from '@/core';
import { useMoney } from '@/screens/frame/money';
import { formatConversions, formatCount } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { Radio } from '@/ui/radio';
import { ErrorText } from '@/ui/said';
import type { GroupInHand } from './use-duplicates';

const FIGURE = 'pl-3 text-right whitespace-nowrap';
const HEADS = ['bid', 'clicks', 'cost', 'conv.', 'cost a conv.', 'to expect', 'takes over'];

/** The keywords of the group in hand, side by side: by which figures one of them stays, and what it would take over. */
export function Members({ group }: { group: GroupInHand }) {
  const money = useMoney();
  const { line, at, choose, handsOver } = group;
  if (!line) return null;
  return (
    <section
      aria-label="Who stays"
      className="max-h-[45%] shrink-0 overflow-y-auto border-t border-line px-4 py-2"
    >
      <h2 className="text-table font-semibold">“{line.keywords[0]!.text}”: who stays</h2>
      <ErrorText error={group.error} />
      <table className="mt-1 w-full text-table">
        <thead className="text-small text-soft">
          <tr>
            <th className="w-full text-left font-normal">keyword</th>
            {HEADS.map((name) => (
              <th key={name} className={`${FIGURE} font-normal`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {line.keywords.map((one, i) => {
            const { clicks, costMicros, conversions, bidMicros, expectedMicros } = one;
            const { cpaMicros } = ratios({ ...noFigures(), clicks, costMicros, conversions });
            const over = handsOver?.find(({ id }) => id === one.id);
            return (
              <tr key={one.id} className="border-t border-line">
                <td>
                  <label className="flex items-center gap-1">
                    <Radio name="stays" checked={i === at} onChange={() => choose(i)} />
                    <span className="min-w-0 break-words">
                      {one.text !== line.keywords[0]!.text && <b>{one.text} </b>}
                      {one.campaign} · {one.adGroup} <MatchChip match={one.match} />{' '}
                      {one.status !== 'live' && <span className="text-soft">{one.status} </span>}
                      <span className="text-small text-soft">{i < 9 && i + 1}</span>
                    </span>
                  </label>
                </td>
                <td className={FIGURE}>{bidMicros === null ? '–' : money(bidMicros)}</td>
                <td className={FIGURE}>{formatCount(clicks)}</td>
                <td className={FIGURE}>{money(costMicros)}</td>
                <td className={FIGURE}>{formatConversions(conversions)}</td>
                <td className={FIGURE}>{cpaMicros === null ? '–' : money(cpaMicros)}</td>
                <td className={FIGURE}>{expectedMicros === null ? '–' : money(expectedMicros)}</td>
                <td className={FIGURE}>
                  {over ? `${formatCount(over.takesOver.terms)} of ${formatCount(over.others.terms)}` : '…'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
