'use client';

import { doesWhat, counted } from '@/core';
import { useMoney } from '@/screens/frame/money';
import { X } from 'lucide-react';
import { useState } from 'react';
import type { SentState, TrayChange, TrayView } from '@/contracts/tray';
import { Button } from '@/ui/button';
import { conversionsOf } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { SpendBars } from '@/ui/spend-bars';
import { useAccount } from '@/screens/frame/account-context';
import { SendDialog } from './send-dialog';
import { SentNote } from './sent-note';
import { useAskedToSend } from './ask-to-send';
import { useNews } from './use-news';
import { useTrayActions, useTrayView } from './use-tray';
import { warningsOf } from './warnings';
import { useRoutes } from '@/screens/frame/data/routes';

/** Whether somebody has to say what became of it: it stands where it is seen. */
const waitsForWord = ({ state }: SentState) => state === 'handed over';

/** More changes than that nobody reads here. */
const MOST_SHOWN = 150;

/** The draft of changes, at the right of every screen. */
export function Tray() {
  const { data, error } = useTrayView();
  useNews(data);
  const { remove } = useTrayActions();
  const [sending, setSending] = useState(false);
  useAskedToSend(() => setSending(true));
  const { summary } = useAccount();
  const { address } = useRoutes();
  const count = data?.changes.length ?? 0;
  return (
    <section aria-label="Tray" className="flex min-h-0 flex-1 flex-col">
      <div
        className="min-h-0 flex-1 overflow-y-auto px-4 pt-3"
        tabIndex={0}
        role="group"
        aria-label="Changes in the tray"
      >
        <h2 className="font-title text-hand font-bold">
          Tray{' '}
          <span className="font-sans text-table font-normal text-soft" data-testid="tray-count">
            {count === 0
              ? 'empty'
              : `${counted(count, 'change')}, not ${summary.isConnected ? 'sent' : 'handed over'}`}
          </span>
        </h2>
        {error && <p className="text-table text-rust">{error.message}</p>}
        {data?.sent.filter(waitsForWord).map((sent) => (
          <SentNote key={sent.setId} sent={sent} />
        ))}
        {data && <Total view={data} />}
        {data && count > 0 && (
          <ul className="-mx-4 mt-2 border-t border-line">
            {data.changes.slice(0, MOST_SHOWN).map((change) => (
              <ChangeRow key={change.id} change={change} onRemove={() => void remove([change.id])} />
            ))}
          </ul>
        )}
        {count > MOST_SHOWN && (
          <p className="py-1.5 text-table text-soft">
            and {counted(count - MOST_SHOWN, 'more change')}; the page before{' '}
            {summary.isConnected ? 'sending' : 'handing over'} lists them all
          </p>
        )}
        {data &&
          warningsOf(data).map(({ key, tone, text }) => (
            <p
              key={key}
              className={`my-2 border-l-[3px] px-2.5 py-1.5 text-table ${tone === 'stop' ? 'border-rust bg-rust/10' : 'border-timber bg-timber/10'}`}
            >
              {text}
            </p>
          ))}
        {data?.sent
          .filter((sent) => !waitsForWord(sent))
          .map((sent) => (
            <SentNote key={sent.setId} sent={sent} />
          ))}
      </div>
      <div className="flex gap-2 border-t border-line px-4 py-3">
        <Button tone="main" disabled={count === 0} onClick={() => setSending(true)}>
          {summary.isConnected ? 'Send the tray…' : 'Hand the tray over…'}
        </Button>
        {count > 0 && (
          <a
            href={address('GET tray/sheet')}
            download
            className="inline-flex items-center rounded border border-line bg-sheet px-2.5 py-1 text-table font-semibold hover:border-soft"
          >
            Save as sheet
          </a>
        )}
      </div>
      {data && sending && <SendDialog view={data} onClose={() => setSending(false)} />}
    </section>
  );
}

function Total({ view: { stops, reopens, changes, days, window } }: { view: TrayView }) {
  const formatMoney = useMoney();
  const { summary } = useAccount();
  if (changes.length === 0) {
    return (
      <p className="mt-1 text-table text-soft">
        What you decide is gathered here, with its effect, until you{' '}
        {summary.isConnected ? 'send it' : 'hand it over as a sheet'}.
      </p>
    );
  }
  const length = days.length;
  return (
    <div aria-live="polite">
      <p className="font-title text-figure leading-8 font-bold" data-testid="tray-cost">
        {formatMoney(stops.costMicros ?? 0)}
      </p>
      <p className="mb-2 text-table text-soft">
        {(stops.conversions ?? 0) > 0 ? 'spent' : 'spent without return'} in{' '}
        {length === 1 ? 'this day' : `these ${length} days`} would be stopped: {counted(stops.terms, 'term')},{' '}
        {counted(stops.clicks ?? 0, 'click')}, {conversionsOf(stops)}.
        {reopens.terms > 0 && ` ${counted(reopens.terms, 'term')} would be open again.`}
      </p>
      <SpendBars key={window.from} days={days} money={formatMoney} />
    </div>
  );
}

const ICON_OF = { stops: 'stopped', opens: 'open', neither: 'post' } as const;

function ChangeRow({ change, onRemove }: { change: TrayChange; onRemove: () => void }) {
  const formatMoney = useMoney();
  const { said, stops, reopens } = change;
  const effect = reopens.terms > 0 ? reopens : stops;
  const hurts = change.touched.length > 0 || change.heldBackBy.count > 0;
  return (
    <li className="group flex items-start gap-2 border-b border-line px-4 py-1.5 text-table">
      <StateIcon kind={hurts ? 'hurting' : ICON_OF[doesWhat(change.change)]} className="mt-0.5" />
      <span className="min-w-0 flex-1 break-words">
        {said}
        {change.reaches && <span className="block text-small text-soft">{change.reaches}</span>}
        {change.failedBefore && (
          <span className="block text-small text-rust">Failed before: {change.failedBefore}</span>
        )}
        {change.forcedBecause && (
          <span className="block text-small text-rust">Forced: {change.forcedBecause}</span>
        )}
      </span>
      <span className="shrink-0 text-right text-small text-soft">
        {effect.terms > 0 ? (
          <>
            {reopens.terms > 0 && 'opens '}
            {counted(effect.terms, 'term')}
            <br />
            {formatMoney(effect.costMicros)}
          </>
        ) : (
          'nothing more'
        )}
      </span>
      <button
        type="button"
        aria-label={`Take out: ${said}`}
        title="Take out of the tray"
        className="-mt-0.5 flex min-h-6 min-w-6 items-center justify-center text-soft hover:text-ink"
        onClick={onRemove}
      >
        <X size={14} aria-hidden />
      </button>
    </li>
  );
}
