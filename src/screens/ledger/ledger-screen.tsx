'use client';

import { useMoney } from '@/screens/frame/money';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { parseAsInteger, useQueryState } from 'nuqs';
import type { LedgerLine } from '@/contracts/ledger';
import { toast } from 'sonner';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { EntryInHand } from './entry-in-hand';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** Everything that was changed: by whom, when, why, what came of it, with undo. */
export function LedgerScreen() {
  const { call, query } = useRoutes();
  const [chosen, setChosen] = useQueryState('entry', parseAsInteger);
  const { data, error, fetchNextPage, hasNextPage } = useInfiniteQuery({
    queryKey: query('GET ledger').queryKey,
    queryFn: ({ pageParam }) =>
      call('GET ledger', { query: pageParam === null ? {} : { before: String(pageParam) } }),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.next,
  });
  const lines = data?.pages.flatMap((page) => page.lines) ?? [];
  const line = lines.find((l) => l.id === chosen) ?? lines[0];
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-baseline gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">Ledger</h1>
        <p className="text-soft">
          Everything that was changed, newest first. What was sent is undone by a change in the tray.
        </p>
      </header>
      {error && <p className="p-4 text-rust">{error.message}</p>}
      {data && lines.length === 0 && <p className="p-4 text-soft">Nothing was changed yet.</p>}
      <div className="min-h-0 flex-1 overflow-y-auto" tabIndex={0} role="group" aria-label="Entries">
        <table className="w-full table-fixed text-table">
          <caption className="sr-only">Entries of the ledger</caption>
          <thead className="sticky top-0 bg-sheet text-left text-small text-soft">
            <tr>
              <th className="w-[104px] px-4 py-1 font-normal">when</th>
              <th className="w-[96px] font-normal">who</th>
              <th className="font-normal">what, why</th>
              <th className="w-[74px] text-right font-normal">read back</th>
              <th className="w-[96px] text-right font-normal">cost before</th>
              <th className="w-[112px] pr-3 text-right font-normal">since</th>
              <th className="w-[70px]">
                <span className="sr-only">undo</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <Row key={l.id} line={l} isChosen={l.id === line?.id} onChoose={() => void setChosen(l.id)} />
            ))}
          </tbody>
        </table>
        {hasNextPage && (
          <Button className="m-4" onClick={() => void fetchNextPage()}>
            Older entries
          </Button>
        )}
      </div>
      <EntryInHand line={line} />
    </div>
  );
}

function Row({ line, isChosen, onChoose }: { line: LedgerLine; isChosen: boolean; onChoose: () => void }) {
  const formatMoney = useMoney();
  const { change } = line;
  const at = new Date(line.at);
  return (
    <tr
      className={`border-t border-line align-top [&>td]:py-1.5 ${isChosen ? 'bg-raised' : ''}`}
      onClick={onChoose}
    >
      <td className="px-4 whitespace-nowrap text-soft">
        {at.toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}
      </td>
      <td className="truncate">{line.who}</td>
      <td className="pr-2">
        <button
          type="button"
          className="text-left hover:underline"
          aria-pressed={isChosen}
          onClick={onChoose}
        >
          {line.what}
        </button>
        {line.why && <span className="block text-small text-soft">{line.why}</span>}
      </td>
      <td
        className={`text-right ${change && change.state !== 'there' && change.state !== 'said' ? 'text-rust' : change?.state === 'said' ? 'text-soft' : 'text-moss'}`}
      >
        {change?.state === 'said' ? 'said to be done' : change?.state}
      </td>
      <td className="text-right">
        {change?.before && change.before.terms > 0 && (
          <>
            {formatMoney(change.before.figures.costMicros)}
            <span className="block text-small text-soft">in {counted(change.before.days, 'day')}</span>
          </>
        )}
      </td>
      <td className="pr-3 text-right">
        {change?.since && (
          <>
            {formatMoney(change.since.here.costMicros ?? 0)}
            <span className="block text-small text-soft">in {counted(change.since.days, 'day')}</span>
            {(change.since.elsewhere.costMicros ?? 0) > 0 && (
              <span className="block text-small text-timber">
                slips {formatMoney(change.since.elsewhere.costMicros)}
              </span>
            )}
          </>
        )}
      </td>
      <td className="pr-3 text-right">{change ? <UndoSent line={line} /> : <UndoEntry line={line} />}</td>
    </tr>
  );
}

/** Takes back what applied at once: a verdict, a load, a setting, a rule. */
function UndoEntry({ line }: { line: LedgerLine }) {
  const { call } = useRoutes();
  const router = useRouter();
  if (line.isUndone) return <span className="text-small text-soft">undone</span>;
  if (!line.canUndo) return null;
  const undo = async () => {
    const { said } = await call('POST ledger/entries/[entry]/undo', { params: { entry: line.id } });
    router.refresh(); // the strip shows settings too
    return said;
  };
  return <UndoButton what={line.what} undo={undo} />;
}

/** Takes back what was sent, by a change in the tray. */
function UndoSent({ line }: { line: LedgerLine }) {
  const { call } = useRoutes();
  const change = line.change!;
  if (change.undoneBy)
    return (
      <span className="text-small text-soft">
        {change.undoneBy === 'drafted' ? 'undo in the tray' : 'undone'}
      </span>
    );
  if (change.state !== 'there' && change.state !== 'said') return null;
  const undo = async () => {
    const { outcome, said } = await call('POST ledger/[change]/undo', { params: { change: change.id } });
    return outcome === 'drafted' ? `In the tray: ${said}` : said;
  };
  return <UndoButton what={line.what} undo={undo} />;
}

/** @param undo what is done; it answers with what is said of it */
function UndoButton({ what, undo }: { what: string; undo: () => Promise<string> }) {
  const refresh = useRefresh();
  return (
    <button
      type="button"
      className="font-semibold text-pine hover:underline"
      aria-label={`Undo: ${what}`}
      onClick={(event) => {
        event.stopPropagation();
        undo()
          .then((said) => {
            toast(said);
            return refresh();
          })
          .catch(sayFailure);
      }}
    >
      Undo
    </button>
  );
}
