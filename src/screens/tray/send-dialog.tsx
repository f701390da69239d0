'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useRoutes } from '@/screens/frame/data/routes';
import type { TrayView } from '@/contracts/tray';
import { Button } from '@/ui/button';
import { DialogFrame } from '@/ui/dialog-frame';
import { conversionsOf, formatCount, formatDays } from '@/ui/format';
import { ChangesTable } from './changes-table';
import { WarningRow } from './warning-row';
import { useAccount, useMay } from '@/screens/frame/account-context';
import { SecondLook } from './second-look';
import { useSecondLook } from './use-second-look';
import { useTrayActions } from './use-tray';
import { warningsOf, warningsOfCheck, type Warning } from './warnings';
import { counted } from '@/core';

/** More warnings than that nobody reads at once. */
const MOST_WARNINGS = 50;

/** What keeps the tray from being sent comes first. */
const rank = ({ tone }: Warning) => (tone === 'stop' ? 0 : 1);

/** What stands around the changes, px; a change has one line or two. */
const AROUND = 260;

/** The last page before sending: what changes, where, the warnings, and the button for who may send. */
export function SendDialog({ view, onClose }: { view: TrayView; onClose: () => void }) {
  const formatMoney = useMoney();
  const { send } = useTrayActions();
  const { summary } = useAccount();
  const { may, who } = useMay('send');
  const verb = summary.isConnected ? 'Send' : 'Hand';
  const sends = `${verb} ${counted(view.changes.length, 'change')}${summary.isConnected ? '' : ' over'}`;
  const [isLookWanted, setLookWanted] = useState(false);
  const [busy, setBusy] = useState(false);
  const { query } = useRoutes();
  const { data: check } = useQuery(query('GET tray/check'));
  const look = useSecondLook(true);
  const found = check ? warningsOfCheck(check, view.changes) : [];
  const warnings = [...warningsOf(view), ...found].sort((a, b) => rank(a) - rank(b));
  const stopped = warnings.some((w) => w.tone === 'stop');
  const waits = look !== undefined && !look.isFree;
  const failed = view.changes.filter(({ failedBefore }) => failedBefore !== null);
  const sendAndClose = (sending?: Parameters<typeof send>[0]) => {
    setBusy(true);
    void send(sending).then((sent) => (sent ? onClose() : setBusy(false)));
  };
  return (
    <DialogFrame
      width={920}
      isTall
      needs={AROUND + 46 * view.changes.length + 60 * warnings.length}
      onClose={onClose}
      title={may ? sends : `${counted(view.changes.length, 'change')} to look through`}
      says={
        <>
          Over {formatDays(view.window)} they would have stopped {counted(view.stops.terms, 'term')},{' '}
          {counted(view.stops.clicks ?? 0, 'click')}, {formatMoney(view.stops.costMicros ?? 0)} spent,{' '}
          {conversionsOf(view.stops)}.{' '}
          {view.reopens.terms > 0 && (
            <b className="text-ink">{counted(view.reopens.terms, 'term')} would be open again. </b>
          )}
          {may && HOW[summary.isConnected ? 'sent' : 'handed over']}
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
      {look && <SecondLook look={look} changes={view.changes} isWanted={!may || isLookWanted} />}
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
        {may && (
          <Button tone="main" disabled={busy || stopped || waits} onClick={() => sendAndClose()}>
            {sends}
          </Button>
        )}
        {may && failed.length > 0 && failed.length < view.changes.length && (
          <Button disabled={busy || waits} onClick={() => sendAndClose({ only: failed.map(({ id }) => id) })}>
            Only {counted(failed.length, 'change')} that failed before
          </Button>
        )}
        {may && summary.isConnected && (
          <SendLater isDisabled={busy || stopped || waits} onSend={(at) => sendAndClose({ at })} />
        )}
        {may && look && !look.up && look.isFree && !isLookWanted && (
          <Button onClick={() => setLookWanted(true)}>Ask for a second look…</Button>
        )}
        <Button onClick={onClose}>{may ? 'Not yet' : 'Close'}</Button>
        {!may && (
          <span className="text-table text-soft">
            You may not {summary.isConnected ? 'send it' : 'hand it over'}: {who} may.
          </span>
        )}
        {may && waits && <span className="text-table text-soft">It waits for a second look; see above.</span>}
        {stopped && <span className="text-table text-rust">A change is held back; see above.</span>}
      </div>
    </DialogFrame>
  );
}

/** A day and a time at which the tray is to be sent, in the time of the browser. */
function SendLater({ isDisabled, onSend }: { isDisabled: boolean; onSend: (at: string) => void }) {
  const [time, setTime] = useState('');
  return (
    <form
      aria-label="Send later"
      className="ml-auto flex items-center gap-1.5 text-table"
      onSubmit={(event) => {
        event.preventDefault();
        onSend(new Date(time).toISOString());
      }}
    >
      <label htmlFor="send-at" className="text-soft">
        or on
      </label>
      <input
        id="send-at"
        type="datetime-local"
        className="rounded border border-line bg-sheet px-1.5 py-0.5"
        value={time}
        onChange={(event) => setTime(event.target.value)}
      />
      <Button type="submit" disabled={isDisabled || time === ''}>
        Send then
      </Button>
    </form>
  );
}

const HOW = {
  sent: 'Each is sent once, then read back and compared.',
  'handed over':
    'No platform is connected: they are given out as a sheet. Say so here when it has been carried out; a structure file, brought in Intake, then shows it.',
};
