'use client';

import { useQuery } from '@tanstack/react-query';
import type { ListLine } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { Button } from '@/ui/button';
import { formatDay } from '@/ui/format';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';

const WHAT = { made: 'made', changed: '', removed: 'removed' } as const;

/** A list's versions as differences, the newest first; each can be put back. */
export function History({
  list,
  onEdit,
  onDone,
}: {
  list: ListLine;
  onEdit: (edit: ListEdit) => void;
  onDone: () => void;
}) {
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists/[list]/history', { params: { list: list.id } }),
  });
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table" data-testid="history">
      <ErrorText error={error} />
      {data?.versions.length === 0 && (
        <p className="text-soft">
          It stands as it was when the account was first read. Changes are kept from then on.
        </p>
      )}
      <ol>
        {data?.versions.map(({ id, at, by, what, said }, i) => (
          <li key={id} className="border-b border-line py-1">
            <span className="flex items-baseline gap-2 text-soft">
              {formatDay(at.slice(0, 10), true)}, {by ?? 'somebody else, on the platform'}
              {i > 0 && (
                <Button
                  tone="quiet"
                  className="ml-auto"
                  onClick={() => onEdit({ do: 'put back', list: list.id, version: id })}
                >
                  Put back
                </Button>
              )}
            </span>
            {[WHAT[what], ...said].filter(Boolean).join('; ')}
          </li>
        ))}
      </ol>
      <Button className="self-start" onClick={onDone}>
        Back
      </Button>
    </div>
  );
}
