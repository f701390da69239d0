'use client';

import { useMoney } from '@/screens/frame/money';
import { useState } from 'react';
import type { TrayView } from '@/contracts/tray';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { conversionsOf, formatCount, formatDays } from '@/ui/format';
import { ChangesTable } from './changes-table';
import { WarningRow } from './warning-row';
import { useAccount } from '@/screens/frame/account-context';
import { useTrayActions } from './use-tray';
import { warningsOf } from './warnings';
import { counted } from '@/core';

/** More warnings than that nobody reads at once. */
const MOST_WARNINGS = 50;

/** What stands around the changes, px; a change has one line or two. */
const AROUND = 260;

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
    <DialogFrame
      width={820}
      isTall
      needs={AROUND + 46 * view.changes.length + 60 * warnings.length}
      onClose={onClose}
      title={`${verb} ${counted(view.changes.length, 'change')}${summary.isConnected ? '' : ' over'}`}
      says={
        <>
          Over {formatDays(view.window)} they would have stopped {counted(view.stops.terms, 'term')},{' '}
          {counted(view.stops.clicks ?? 0, 'click')}, {formatMoney(view.stops.costMicros ?? 0)} spent,{' '}
          {conversionsOf(view.stops)}.{' '}
          {view.reopens.terms > 0 && (
            <b className="text-ink">{counted(view.reopens.terms, 'term')} would be open again. </b>
          )}
          {HOW[summary.isConnected ? 'sent' : 'handed over']}
        </>
      }
    >
      {warnings.length > 0 && (
        <div
          className="max-h-[34vh] shrink-0 overflow-y-auto border-b border-line px-5 pt-2"
          role="group"
          aria-label="Warnings"
        >
          {warnings.slice(0, MOST_WARNINGS).map((warning) => (
            <WarningRow key={warning.key} warning={warning} />
          ))}
          {warnings.length > MOST_WARNINGS && (
            <p className="pb-2 text-table text-soft">
              and {counted(warnings.length - MOST_WARNINGS, 'more warning')}; they follow as these are mended
            </p>
          )}
        </div>
      )}
      <ChangesTable changes={view.changes} />
      <div className="px-5">
        {view.room.length > 0 && (
          <p className="max-h-16 overflow-y-auto py-2 text-table text-soft">
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
    </DialogFrame>
  );
}

const HOW = {
  sent: 'Each is sent once, then read back and compared.',
  'handed over':
    'No platform is connected: they are given out as a sheet. Say so here when it has been carried out; a structure file, brought in Intake, then shows it.',
};
