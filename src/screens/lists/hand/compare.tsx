'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ListLine } from '@/contracts/lists';
import type { NegativeText } from '@/core';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { namedOptions, Select } from '@/ui/select';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';

const MOST = 200;

/** A list beside another: what only one holds, what both hold, what one covers of the other. */
export function Compare({
  list,
  others,
  onDone,
}: {
  list: ListLine;
  others: readonly ListLine[];
  onDone: () => void;
}) {
  const [other, setOther] = useState(others[0]?.id ?? '');
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists/[list]/compare', { params: { list: list.id }, query: { with: other } }),
    enabled: other !== '',
  });
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table" data-testid="compare">
      <p>
        Beside <Select label="Beside" options={namedOptions(others)} value={other} onChange={setOther} />
      </p>
      <ErrorText error={error} />
      {data && (
        <div className="grid grid-cols-2 gap-x-3">
          <Side title={`only ${data.first.name}`} entries={data.onlyFirst} />
          <Side title={`only ${data.second.name}`} entries={data.onlySecond} />
          <div className="col-span-2">
            <Side title="in both" entries={data.both} />
          </div>
          {data.covered.length > 0 && (
            <div className="col-span-2">
              <h3 className="mt-1 text-small text-soft">needless, if both hang in one place</h3>
              <ul>
                {data.covered.slice(0, MOST).map(({ entry, in: side, coveredBy }) => (
                  <li key={`${side} ${entry.match} ${entry.text}`}>
                    “{entry.text}” of {data[side].name}: “{coveredBy.text}” ({coveredBy.match}) stops it too
                  </li>
                ))}
              </ul>
            </div>
          )}
        </div>
      )}
      <Button className="self-start" onClick={onDone}>
        Back
      </Button>
    </div>
  );
}

function Side({ title, entries }: { title: string; entries: readonly NegativeText[] }) {
  return (
    <div className="min-w-0">
      <h3 className="truncate text-small text-soft" title={title}>
        {title}: {formatCount(entries.length)}
      </h3>
      <ul>
        {entries.slice(0, MOST).map(({ text, match }) => (
          <li key={`${match} ${text}`} className="truncate" title={`${text} (${match})`}>
            {text} <span className="text-soft">{match}</span>
          </li>
        ))}
      </ul>
      {entries.length > MOST && <p className="text-soft">and {formatCount(entries.length - MOST)} more</p>}
    </div>
  );
}
