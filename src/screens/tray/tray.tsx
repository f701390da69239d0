'use client';

import { counted } from '@/core';
import { useMoney } from '@/screens/frame/money';
import { useState } from 'react';
import type { SentState, TrayView } from '@/contracts/tray';
import { Button } from '@/ui/button';
import { conversionsOf } from '@/ui/format';
import { SpendBars } from '@/ui/spend-bars';
import { useAccount, useMay } from '@/screens/frame/account-context';
import { SendDialog } from './send-dialog';
import { SentNote } from './sent-note';
import { Spine } from './spine';
import { TrayOutlook } from './tray-outlook';
import { TrayList } from './tray-list';
import { useAskedToSend } from './ask-to-send';
import { SecondLookLine } from './second-look';
import { useNews } from './use-news';
import { useSecondLook } from './use-second-look';
import { useTrayActions, useTrayView } from './use-tray';
import { warningsOf } from './warnings';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';

/** Whether somebody has to say what became of it: it stands where it is seen. */
const waitsForWord = ({ state }: SentState) => state === 'handed over';

/** More warnings than that are read on the page before sending, where each has its mend. */
const MOST_WARNINGS = 3;

type Props = { isFolded?: boolean; onFold?: (isFolded: boolean) => void };

/** The draft of changes, at the right of every screen; folded, it is a spine. */
export function Tray({ isFolded = false, onFold }: Props) {
  const { data, error } = useTrayView();
  useNews(data);
  const { remove } = useTrayActions();
  const [sending, setSending] = useState(false);
  useAskedToSend(() => setSending(true));
  const { summary } = useAccount();
  const { address } = useRoutes();
  const { may } = useMay('send');
  const count = data?.changes.length ?? 0;
  const look = useSecondLook(count > 0);
  const dialog = data && sending && <SendDialog view={data} onClose={() => setSending(false)} />;
  if (isFolded)
    return (
      <>
        <Spine count={count} costMicros={data?.stops.costMicros ?? 0} onUnfold={() => onFold?.(false)} />
        {dialog}
      </>
    );
  const warnings = data ? warningsOf(data) : [];
  const busy = count > 0 || (data?.sent.length ?? 0) > 0;
  return (
    <section
      aria-label="Tray"
      className={`flex flex-1 flex-col ${busy ? 'min-h-[min(312px,46%)]' : 'min-h-[132px]'}`}
    >
      <div
        className="min-h-0 flex-1 overflow-y-auto px-4 pt-2.5"
        role="group"
        aria-label="Changes in the tray"
      >
        <h2 className="flex items-baseline gap-1.5 font-title text-hand font-bold">
          Tray
          <span className="font-sans text-table font-normal text-soft" data-testid="tray-count">
            {count === 0
              ? 'empty'
              : `${counted(count, 'change')}, not ${summary.isConnected ? 'sent' : 'handed over'}`}
          </span>
          {onFold && (
            <button
              type="button"
              className="ml-auto min-h-6 font-sans text-small font-normal text-soft hover:text-ink"
              onClick={() => onFold(true)}
            >
              fold ›
            </button>
          )}
        </h2>
        <ErrorText error={error} />
        {data?.sent.filter(waitsForWord).map((sent) => (
          <SentNote key={sent.setId} sent={sent} />
        ))}
        {data && <Total view={data} />}
        {look && <SecondLookLine look={look} />}
        {data && count > 0 && <TrayOutlook />}
        {data && count > 0 && <TrayList changes={data.changes} onRemove={(ids) => void remove(ids)} />}
        {warnings.slice(0, MOST_WARNINGS).map(({ key, tone, text }) => (
          <p
            key={key}
            className={`my-2 border-l-[3px] px-2.5 py-1.5 text-table ${tone === 'stop' ? 'border-rust bg-rust/10' : 'border-timber bg-timber/10'}`}
          >
            {text}
          </p>
        ))}
        {warnings.length > MOST_WARNINGS && (
          <p className="py-1.5 text-table text-soft">
            and {counted(warnings.length - MOST_WARNINGS, 'more warning')}; the page before{' '}
            {summary.isConnected ? 'sending' : 'handing over'} lists them, each with its mend
          </p>
        )}
        {data?.sent
          .filter((sent) => !waitsForWord(sent))
          .map((sent) => (
            <SentNote key={sent.setId} sent={sent} />
          ))}
      </div>
      <div className="flex gap-2 border-t border-line px-4 py-2">
        <Button tone="main" disabled={count === 0} onClick={() => setSending(true)}>
          {!may ? 'Look the tray through…' : summary.isConnected ? 'Send the tray…' : 'Hand the tray over…'}
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
      {dialog}
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
      <div className="flex items-center gap-2.5">
        <p className="font-title text-figure leading-8 font-bold" data-testid="tray-cost">
          {formatMoney(stops.costMicros ?? 0)}
        </p>
        <p className="text-small leading-4 text-soft">
          {(stops.conversions ?? 0) > 0 ? 'would be stopped' : 'without return would be stopped'} in{' '}
          {length === 1 ? 'this day' : `these ${length} days`}
          {reopens.terms > 0 && `; ${counted(reopens.terms, 'term')} open again`}
        </p>
      </div>
      <p className="text-small leading-4 text-soft">
        {counted(stops.terms, 'term')}, {counted(stops.clicks ?? 0, 'click')}, {conversionsOf(stops)}
      </p>
      <div className="mt-1 [@media(max-height:899px)]:hidden">
        <SpendBars key={window.from} days={days} money={formatMoney} />
      </div>
    </div>
  );
}
