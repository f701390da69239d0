'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { ListsView } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { InHand } from '@/screens/frame/in-hand';
import { useRefresh } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { useRoving } from '@/ui/use-roving';
import { EditInHand } from '../edit/edit-in-hand';
import { Outside, sayWho } from './outside';
import { useRoutes } from '@/screens/frame/data/routes';
import { EmptyState } from '@/ui/said';

/** What somebody else changed on the platform: to be taken over, or undone. */
export function Elsewhere({ view: { waiting, outside } }: { view: ListsView }) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const [edit, setEdit] = useState<ListEdit | null>(null);
  const { list, itemOf: item } = useRoving(2 * waiting.length);
  const takeOver = async (id: number) => {
    try {
      await call('POST lists/versions/[version]', { params: { version: id } });
      toast('Taken over: it stands as somebody else left it.');
    } catch (error) {
      sayFailure(error);
    }
    await refresh();
  };
  return (
    <>
      <div className="min-h-0 flex-1 overflow-y-auto text-table">
        <Outside outside={outside} />
        {waiting.length + outside.length === 0 && (
          <EmptyState>
            Nobody has changed anything on the platform since it was read last. It is read with each report
            and after each sending.
          </EmptyState>
        )}
        <ul aria-label="Changed elsewhere" {...list}>
          {waiting.map(({ id, listName, at, by, on, what, said }, i) => (
            <li key={id} className="flex items-start gap-3 border-b border-line px-4 py-2">
              <span className="min-w-0 flex-1">
                <b>{listName}</b>{' '}
                <span className="text-soft">
                  {what} {sayWho(by, on, at)}
                </span>
                {said.map((line) => (
                  <span key={line} className="block">
                    {line}
                  </span>
                ))}
              </span>
              <Button {...item(2 * i)} onClick={() => void takeOver(id)}>
                Take over
              </Button>
              <Button {...item(2 * i + 1)} onClick={() => setEdit({ do: 'undo version', version: id })}>
                Undo…
              </Button>
            </li>
          ))}
        </ul>
      </div>
      <InHand>
        {edit ? (
          <EditInHand edit={edit} onDone={() => setEdit(null)} onLeave={() => setEdit(null)} />
        ) : (
          <p className="mt-1 text-table text-soft">
            Until it is taken over or undone, nothing is sent that touches the same list, negative or keyword.
          </p>
        )}
      </InHand>
    </>
  );
}
