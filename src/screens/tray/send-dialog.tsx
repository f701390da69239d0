'use client';

import { useMoney } from '@/screens/frame/money';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import type { TrayView } from '@/contracts/tray';
import { Button } from '@/ui/button';
import { conversionsOf, formatCount, formatDays } from '@/ui/format';
import { useAccount } from '@/screens/frame/account-context';
import { useTrayActions } from './use-tray';
import { warningsOf } from './warnings';
import { counted } from '@/core';

/** The last page before sending: what changes, where, the warnings, and the button. */
export function SendDialog({ view, onClose }: { view: TrayView; onClose: () => void }) {
  const formatMoney = useMoney();
  const { send } = useTrayActions();
  const { summary } = useAccount();
  const verb = summary.isConnected ? 'Send' : 'Hand';
  const [busy, setBusy] = useState(false);
  const warnings = warningsOf(view);
  const stopped = warnings.some((w) => w.tone === 'stop');
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-50 flex max-h-[86vh] w-[760px] -translate-x-1/2 -translate-y-1/2 flex-col rounded border border-line bg-sheet shadow-xl">
          <div className="border-b border-line px-5 py-3">
            <Dialog.Title className="font-title text-title font-bold">
              {verb} {counted(view.changes.length, 'change')}
              {summary.isConnected ? '' : ' over'}
            </Dialog.Title>
            <Dialog.Description className="text-table text-soft">
              Over {formatDays(view.window)} they would have stopped {counted(view.stops.terms, 'term')},{' '}
              {counted(view.stops.clicks ?? 0, 'click')}, {formatMoney(view.stops.costMicros ?? 0)} spent,{' '}
              {conversionsOf(view.stops)}. {HOW[summary.isConnected ? 'sent' : 'handed over']}
            </Dialog.Description>
          </div>
          <div
            className="min-h-0 flex-1 overflow-y-auto px-5 py-3"
            tabIndex={0}
            role="group"
            aria-label="What will change"
          >
            {warnings.map((w) => (
              <p
                key={w.key}
                className={`mb-2 border-l-[3px] px-2.5 py-1.5 text-table ${w.tone === 'stop' ? 'border-rust bg-rust/10' : 'border-timber bg-timber/10'}`}
              >
                {w.text}
              </p>
            ))}
            <table className="w-full text-table">
              <thead className="text-left text-soft">
                <tr>
                  <th className="py-1 font-normal">change</th>
                  <th className="py-1 font-normal">put in by</th>
                  <th className="py-1 text-right font-normal">terms</th>
                  <th className="py-1 text-right font-normal">clicks</th>
                  <th className="py-1 text-right font-normal">cost</th>
                </tr>
              </thead>
              <tbody>
                {view.changes.map((c) => {
                  const effect = c.reopens.terms > 0 ? c.reopens : c.stops;
                  return (
                    <tr key={c.id} className="border-t border-line align-top">
                      <td className="py-1 pr-2">{c.said}</td>
                      <td className="py-1 pr-2 whitespace-nowrap text-soft">{c.by}</td>
                      <td className="py-1 text-right">{formatCount(effect.terms)}</td>
                      <td className="py-1 text-right">{formatCount(effect.clicks ?? 0)}</td>
                      <td className="py-1 text-right">{formatMoney(effect.costMicros ?? 0)}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
            {view.room.length > 0 && (
              <p className="mt-3 text-table text-soft">
                Room left:{' '}
                {view.room
                  .map(
                    ({ place, what, used, most }) =>
                      `${place} ${formatCount(Math.max(0, most - used))} of ${formatCount(most)} ${what}`,
                  )
                  .join('; ')}
                .
              </p>
            )}
          </div>
          <div className="flex items-center gap-2 border-t border-line px-5 py-3">
            <Button
              tone="main"
              disabled={busy || stopped}
              onClick={() => {
                setBusy(true);
                void send().then((sent) => (sent ? onClose() : setBusy(false)));
              }}
            >
              {verb} {counted(view.changes.length, 'change')}
              {summary.isConnected ? '' : ' over'}
            </Button>
            <Button onClick={onClose}>Not yet</Button>
            {stopped && <span className="text-table text-rust">A change is held back; see above.</span>}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const HOW = {
  sent: 'Each is sent once, then read back and compared.',
  'handed over':
    'No platform is connected: they are given out as a sheet. Say so here when it has been carried out; a structure file, brought in Intake, then shows it.',
};
