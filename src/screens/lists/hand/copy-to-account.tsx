'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { ListFile, ListLine } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { useAccount } from '@/screens/frame/account-context';
import { sayFailure } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { useRoutes, call } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** Puts a list like this one in the tray of another account. */
export function CopyToAccount({ list, onDone }: { list: ListLine; onDone: () => void }) {
  const { accounts, summary } = useAccount();
  const file = useRoutes().address('GET lists/[list]/file', {
    params: { list: list.id },
    query: { as: 'json' },
  });
  const others = accounts.filter((a) => a.slug !== summary.slug);
  const [to, setTo] = useState(others[0]?.slug ?? '');
  const [name, setName] = useState(list.name);
  if (others.length === 0) return <p className="text-table text-soft">There is no other account here.</p>;

  async function copy() {
    try {
      const { lists } = await ask<ListFile>(file);
      const { holds, entries, placements } = lists[0]!;
      const text =
        holds === 'placements'
          ? placements.join('\n')
          : ['keyword\tmatch type', ...entries.map((e) => `${e.text}\t${e.match}`)].join('\n');
      const edit: ListEdit = { do: 'paste', into: { make: name.trim() }, holds, text };
      const { changeIds, heldBack, refused } = await call(to, 'POST lists/edit', { body: { edit } });
      const left = (heldBack?.count ?? 0) + refused.count;
      toast(
        `${counted(changeIds.length, 'change')} put in the tray of ${others.find((a) => a.slug === to)!.name}${left > 0 ? `; ${left} held back or refused there` : ''}`,
      );
      onDone();
    } catch (error) {
      sayFailure(error);
    }
  }

  return (
    <div className="mt-1 flex flex-col gap-2 text-table">
      <label>
        Put it in the tray of{' '}
        <select
          className="rounded border border-line bg-sheet px-1.5 py-1"
          value={to}
          onChange={(e) => setTo(e.target.value)}
        >
          {others.map((a) => (
            <option key={a.slug} value={a.slug}>
              {a.name}
            </option>
          ))}
        </select>
      </label>
      <label>
        as a list named
        <input
          maxLength={120}
          className="mt-1 w-full rounded border border-line bg-sheet px-2 py-1"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <div className="flex gap-2">
        <Button tone="main" disabled={name.trim() === ''} onClick={() => void copy()}>
          Copy it
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </div>
  );
}
