'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { entryKey } from '@/contracts/lists';
import { InHand } from '@/screens/frame/in-hand';
import { Check } from '@/ui/check';
import { formatCount, formatDay } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { EditInHand } from '../edit/edit-in-hand';
import { NameField } from './could-be';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** Negatives on the whole account, the room that is left, and moving them into a list that hangs on the whole account. */
export function AccountWide() {
  const formatMoney = useMoney();

  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists/account-wide'),
  });
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set());
  const [name, setName] = useState('Everywhere');
  const marked = (data?.entries ?? []).filter(
    (e) => marks.has(entryKey(e.match, e.text)) && e.drafted === null,
  );
  const distinct = [
    ...new Map(marked.map((e) => [entryKey(e.match, e.text), { text: e.text, match: e.match }])).values(),
  ];
  return (
    <>
      <div className="min-h-0 flex-1 overflow-y-auto text-table">
        {error && <p className="p-4 text-rust">{error.message}</p>}
        {data && (
          <p className="border-b border-line px-4 py-1.5 text-soft">
            {formatCount(data.used)} of {formatCount(data.most)} used; room for{' '}
            {counted(Math.max(0, data.most - data.used), 'more', 'more')}. A list that hangs on the whole
            account stops the same and leaves that room free.
          </p>
        )}
        {data?.entries.length === 0 && (
          <p className="p-4 text-soft">No negative stands on the whole account.</p>
        )}
        <table className="w-full">
          {data && data.entries.length > 0 && (
            <thead className="text-left text-small text-soft">
              <tr>
                <th className="w-10 py-1 pl-4">
                  <Check
                    aria-label="Mark all"
                    checked={marks.size > 0 && marked.length === data.entries.length}
                    onChange={(e) =>
                      setMarks(
                        new Set(
                          e.target.checked ? data.entries.map((one) => entryKey(one.match, one.text)) : [],
                        ),
                      )
                    }
                  />
                </th>
                <th className="font-normal">text</th>
                <th className="font-normal">match</th>
                <th className="font-normal">since</th>
                <th className="text-right font-normal">terms in these days</th>
                <th className="text-right font-normal">cost</th>
                <th className="px-4 font-normal">needless by</th>
              </tr>
            </thead>
          )}
          <tbody>
            {data?.entries.map((entry, i) => {
              const key = entryKey(entry.match, entry.text);
              return (
                <tr key={`${key} ${i}`} className="border-t border-line">
                  <td className="pl-4">
                    <Check
                      aria-label={`Mark ${entry.text} (${entry.match})`}
                      checked={marks.has(key)}
                      onChange={() => {
                        const next = new Set(marks);
                        if (!next.delete(key)) next.add(key);
                        setMarks(next);
                      }}
                    />
                  </td>
                  <td className={entry.drafted === 'removed' ? 'line-through' : ''}>
                    {entry.text}
                    {entry.drafted === 'said to be done' && (
                      <span className="text-small text-pine"> said to be done</span>
                    )}
                  </td>
                  <td>
                    <MatchChip match={entry.match} />
                  </td>
                  <td className="text-soft">{entry.since && formatDay(entry.since.slice(0, 10), true)}</td>
                  <td className="text-right">{formatCount(entry.stops.terms)}</td>
                  <td className="text-right">{formatMoney(entry.stops.costMicros)}</td>
                  <td className="px-4 text-timber">{entry.coveredBy}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <InHand title={distinct.length > 0 ? counted(distinct.length, 'account-wide negative') : undefined}>
        {distinct.length === 0 ? (
          <p className="mt-1 text-table text-soft">Mark those that are to be a list.</p>
        ) : (
          <EditInHand
            edit={{
              do: 'gather',
              name: name.trim() || 'Everywhere',
              entries: distinct,
              from: [{ kind: 'account', id: null }],
            }}
            onDone={() => setMarks(new Set())}
            onLeave={() => setMarks(new Set())}
          >
            <NameField name={name} onChange={setName} />
          </EditInHand>
        )}
      </InHand>
    </>
  );
}
