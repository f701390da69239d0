'use client';

import { counted, listed, type Rule } from '@/core';
import type { TrialLine, TrialView } from '@/contracts/rules';
import { useMoney } from '@/screens/frame/money';
import { formatConversions } from '@/ui/format';
import { sayCondition, thingOf } from '../say-rule';
import { trialWords } from './trial-words';

type Props = { trial: TrialView; rule: Rule; onTake: (rule: Rule) => void };

/** The rule between two neighbours: what a looser and a tighter threshold would have done. */
export function TrialLines({ trial, rule, onTake }: Props) {
  const money = useMoney();
  const words = trialWords(rule.then);
  const heads = [
    ...['threshold', words.did, words.cost, `conv. ${words.brought}`, 'worth of them'],
    words.ends ? 'saved for each lost' : 'cost for each',
  ];
  return (
    <table
      className="mt-3 w-full border-t border-line text-right text-table"
      aria-label="Neighbouring thresholds"
    >
      <thead className="text-soft">
        <tr className="border-b border-line align-bottom">
          {heads.map((name, i) => (
            <th key={name} scope="col" className={`px-2 py-1 font-normal ${i === 0 ? 'pl-4 text-left' : ''}`}>
              {name}
            </th>
          ))}
          <th scope="col" className="px-2 py-1 pr-4 text-left font-normal">
            {words.soldLater}
          </th>
        </tr>
      </thead>
      <tbody>
        {trial.lines.map((line, i) => (
          <tr key={i} className={`border-b border-line align-baseline ${line.isOwn ? 'bg-raised' : ''}`}>
            <th scope="row" className="py-1 pr-2 pl-4 text-left font-semibold whitespace-nowrap">
              {line.isOwn ? (
                sayThreshold(line, trial, money)
              ) : (
                <button
                  type="button"
                  className="min-h-6 border-b border-dashed border-soft text-left font-semibold"
                  onClick={() => onTake(line.rule)}
                >
                  {sayThreshold(line, trial, money)}
                </button>
              )}
            </th>
            <td className="px-2 whitespace-nowrap">{counted(line.terms, thingOf(rule))}</td>
            <td className="px-2 text-timber">{money(line.savedMicros)}</td>
            <td className={`px-2 ${line.lostConversions > 0 && words.ends ? 'text-rust' : ''}`}>
              {formatConversions(line.lostConversions)}
            </td>
            <td className="px-2">{money(line.lostMicros)}</td>
            <td className="px-2 font-semibold">
              {line.lostConversions > 0 ? money(line.savedMicros / line.lostConversions) : '–'}
            </td>
            <td className="px-2 pr-4 text-left text-soft">{sayWrong(line)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The condition in which a line differs from the others. */
function sayThreshold(line: TrialLine, { lines }: TrialView, money: (micros: number) => string): string {
  const other = lines.find((one) => one !== line);
  const at = line.rule.when.findIndex(
    (one, i) => JSON.stringify(one) !== JSON.stringify(other?.rule.when[i]),
  );
  return sayCondition(line.rule.when[Math.max(0, at)]!, money);
}

function sayWrong({ wrong: { first, total } }: TrialLine): string {
  if (total === 0) return 'none';
  return listed(
    first.slice(0, 2).map(({ term }) => term),
    total,
  );
}
