'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import type { LedgerLine } from '@/contracts/ledger';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';

/** What takes an entry back, or what has taken it back. */
export function UndoCell({ line }: { line: LedgerLine }) {
  return line.change ? <UndoSent line={line} /> : <UndoEntry line={line} />;
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
      tabIndex={-1} // the key u of the table does it, too
      data-undo
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
