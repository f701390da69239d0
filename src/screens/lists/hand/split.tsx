'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ListLine } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted, listed } from '@/core';
import { ErrorText } from '@/ui/said';

type Props = { list: ListLine; onEdit: (edit: ListEdit) => void; onDone: () => void };

/** The themes of a list, of which each can be a list of its own. */
export function Split({ list, onEdit, onDone }: Props) {
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists/[list]/themes', { params: { list: list.id } }),
  });
  const [themes, setThemes] = useState<readonly string[]>([]);
  const parts = (data?.parts ?? []).filter((part) => part.theme !== null);
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table" data-testid="split">
      <ErrorText error={error} />
      {data && parts.length === 0 && <p className="text-soft">No word stands in two of its entries.</p>}
      <ul>
        {parts.map(({ theme, entries }) => (
          <li key={theme}>
            <label className="flex items-center gap-1" title={entries.map((e) => e.text).join(', ')}>
              <Check
                checked={themes.includes(theme!)}
                onChange={(e) =>
                  setThemes(e.target.checked ? [...themes, theme!] : themes.filter((t) => t !== theme))
                }
              />
              <b>{theme}</b>
              <span className="min-w-0 truncate text-soft">
                {counted(entries.length, 'entry', 'entries')}: {listed(entries.map((e) => e.text))}
              </span>
            </label>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        <Button
          tone="main"
          disabled={themes.length === 0}
          onClick={() => onEdit({ do: 'split', list: list.id, themes: [...themes] })}
        >
          See what it comes to
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </div>
  );
}
