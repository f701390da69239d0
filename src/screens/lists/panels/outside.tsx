'use client';

import { toast } from 'sonner';
import type { ListsView } from '@/contracts/lists';
import { useRefresh } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { formatDay } from '@/ui/format';
import { useRoving } from '@/ui/use-roving';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** Who changed something on the platform and when; where the platform does not say, when it was seen. */
export const sayWho = (by: string | null, on: string | null, at: string) =>
  `by ${by ?? 'somebody else'}, ${on ? `on ${formatDay(on, true)}` : `seen ${formatDay(at.slice(0, 10), true)}`}`;

/** What others changed on the platform outside lists: to be taken over, or undone, one by one or all. */
export function Outside({ outside }: Pick<ListsView, 'outside'>) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const { list, itemOf: item } = useRoving(2 * outside.length);
  if (outside.length === 0) return null;

  const undo = async (ids: number[]) => (await call('POST elsewhere/undo', { body: { ids } })).outcomes;
  async function takeOver(ids: number[]) {
    await call('POST elsewhere/take-over', { body: { ids } });
    return [];
  }
  async function settle(how: 'take-over' | 'undo', ids: number[]) {
    try {
      const outcomes = how === 'undo' ? await undo(ids) : await takeOver(ids);
      const kept = outcomes.filter(({ outcome }) => outcome === 'refused' || outcome === 'held back');
      for (const { said } of kept.slice(0, 3)) toast.error(said);
      if (how === 'take-over') toast(`Taken over: ${counted(ids.length, 'change')}. The Ledger can undo it.`);
      else if (kept.length < ids.length)
        toast(`${counted(ids.length - kept.length, 'change')} put in the tray that takes it back.`);
    } catch (error) {
      sayFailure(error);
    }
    await refresh();
  }

  const all = outside.map(({ id }) => id);
  return (
    <section aria-labelledby="outside-title">
      <div className="flex items-center gap-3 border-b border-line bg-paper px-4 py-1.5">
        <h2 id="outside-title" className="flex-1 font-semibold">
          Outside lists: {counted(outside.length, 'change')} by somebody else
        </h2>
        <Button onClick={() => void settle('take-over', all)}>Take all over</Button>
        <Button onClick={() => void settle('undo', all)}>Undo all</Button>
      </div>
      <ul aria-label="Changed elsewhere, outside lists" {...list}>
        {outside.map(({ id, at, said, by, on }, i) => (
          <li key={id} className="flex items-start gap-3 border-b border-line px-4 py-2">
            <span className="min-w-0 flex-1">
              {said} <span className="text-soft">{sayWho(by, on, at)}</span>
            </span>
            <Button {...item(2 * i)} onClick={() => void settle('take-over', [id])}>
              Take over
            </Button>
            <Button {...item(2 * i + 1)} onClick={() => void settle('undo', [id])}>
              Undo
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
