'use client';

import { useQuery } from '@tanstack/react-query';
import { parseAsString, useQueryStates } from 'nuqs';
import { useState } from 'react';
import { newListId } from '@/core';
import type { ListsView } from '@/contracts/screens';
import { useAccount } from '@/screens/frame/account-context';
import { sayFailure, useTrayActions } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { Mark } from '@/ui/marks';
import { plural } from '@/ui/format';
import { CellInHand } from './cell-in-hand';
import { HangingGrid } from './hanging-grid';

/** Shared lists, and where they hang. */
export function ListsScreen() {
  const { summary, api } = useAccount();
  const { data, error } = useQuery({
    queryKey: ['lists', summary.slug],
    queryFn: () => ask<ListsView>(api('lists')),
  });
  const [at, setAt] = useQueryStates({ list: parseAsString, campaign: parseAsString });
  const { draft } = useTrayActions();

  const chosenList = data?.lists.find((l) => l.id === at.list) ?? data?.lists[0];
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-center gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-[20px] font-bold">Lists</h1>
        {data && (
          <p className="text-soft">
            <b className="text-ink">{plural(data.lists.length, 'list')}</b> across{' '}
            {plural(data.campaigns.length, 'campaign')}
          </p>
        )}
        <NewList
          onMake={(name) =>
            draft([{ change: { kind: 'make list', listId: newListId(crypto.randomUUID()), name } }])
          }
        />
      </header>
      {error && <p className="p-4 text-rust">{error.message}</p>}
      {data?.lists.length === 0 && (
        <p className="p-4 text-soft">
          No list yet. Make one, put words into it from Sift, and hang it on campaigns.
        </p>
      )}
      {data && data.lists.length > 0 && (
        <HangingGrid
          view={data}
          chosen={{ list: chosenList?.id ?? null, campaign: at.campaign }}
          onChoose={(list, campaign) => void setAt({ list, campaign })}
          onTurn={(list, campaignId, hangs) =>
            void draft([
              { change: { kind: hangs ? 'take down list' : 'hang list', listId: list, campaignId } },
            ]).then(sayHeldBack)
          }
        />
      )}
      <p className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line px-4 py-1.5 text-[12px] text-soft">
        <span>
          <Mark kind="stopped" /> hung
        </span>
        <span>
          <Mark kind="hurting" /> hung, shuts out or narrows a live keyword
        </span>
        <span>
          <Mark kind="drafted" /> in the tray
        </span>
        <span>
          <Mark kind="open" /> open
        </span>
        <span>Enter hangs or takes down</span>
      </p>
      {chosenList && <CellInHand listId={chosenList.id} campaignId={at.campaign} />}
    </div>
  );
}

function sayHeldBack(outcomes: Awaited<ReturnType<ReturnType<typeof useTrayActions>['draft']>>) {
  for (const outcome of outcomes) {
    if (outcome.outcome === 'held back')
      sayFailure(new Error(`${outcome.said} To force it, give a reason in hand.`));
  }
}

function NewList({ onMake }: { onMake: (name: string) => Promise<unknown> }) {
  const [name, setName] = useState<string | null>(null);
  if (name === null) {
    return (
      <Button className="ml-auto" onClick={() => setName('')}>
        New list
      </Button>
    );
  }
  return (
    <form
      className="ml-auto flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '') void onMake(name.trim()).then(() => setName(null));
      }}
    >
      <input
        autoFocus
        aria-label="Name of the new list"
        className="rounded border border-line bg-sheet px-2 py-1"
        placeholder="Name of the list"
        maxLength={120}
        value={name}
        onChange={(e) => setName(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && setName(null)}
      />
      <button
        type="submit"
        className="rounded border border-pine bg-pine px-2.5 py-1 text-[13px] font-semibold text-on-pine disabled:opacity-50"
        disabled={name.trim() === ''}
      >
        Make it
      </button>
      <Button onClick={() => setName(null)}>Leave it</Button>
    </form>
  );
}
