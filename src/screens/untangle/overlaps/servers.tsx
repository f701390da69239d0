'use client';

import { noFigures, ratios } from '@/core';
import { useMoney } from '@/screens/frame/money';
import { formatConversions, formatCount } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { Radio } from '@/ui/radio';
import type { OverlapInHand } from './use-overlap';

const FIGURE = 'pl-3 text-right whitespace-nowrap';
const HEADS = ['clicks', 'cost', 'conv.', 'cost a conv.', 'to expect'];

/** The ad groups that serve the term in hand, side by side: one of them keeps it. */
export function Servers({ overlap: { line, at, choose } }: { overlap: OverlapInHand }) {
  const money = useMoney();
  if (!line) return null;
  return (
    <section
      aria-label="Who keeps it"
      className="max-h-[45%] shrink-0 overflow-y-auto border-t border-line px-4 py-2"
    >
      <h2 className="text-table font-semibold">“{line.term}”: who keeps it</h2>
      <table className="mt-1 w-full text-table">
        <thead className="text-small text-soft">
          <tr>
            <th className="w-full text-left font-normal">ad group</th>
            {HEADS.map((name) => (
              <th key={name} className={`${FIGURE} font-normal`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {line.servers.map((one, i) => {
            const { clicks, costMicros, conversions, expectedMicros, saidAs } = one;
            const { cpaMicros } = ratios({ ...noFigures(), clicks, costMicros, conversions });
            return (
              <tr key={one.adGroupId} className="border-t border-line">
                <td>
                  <label className="flex items-center gap-1">
                    <Radio name="keeps" checked={i === at} onChange={() => choose(i)} />
                    <span className="min-w-0 break-words">
                      {one.campaign} · {one.adGroup}{' '}
                      {saidAs.length > 0 && <span className="text-small text-soft">has it as </span>}
                      {saidAs.map((match) => (
                        <MatchChip key={match} match={match} />
                      ))}{' '}
                      <span className="text-small text-soft">{i < 9 && i + 1}</span>
                    </span>
                  </label>
                </td>
                <td className={FIGURE}>{formatCount(clicks)}</td>
                <td className={FIGURE}>{money(costMicros)}</td>
                <td className={FIGURE}>{formatConversions(conversions)}</td>
                <td className={FIGURE}>{cpaMicros === null ? '–' : money(cpaMicros)}</td>
                <td className={FIGURE}>{expectedMicros === null ? '–' : money(expectedMicros)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
