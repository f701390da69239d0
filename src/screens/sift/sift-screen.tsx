'use client';

import { useCallback, useState } from 'react';
import type { TermLine } from '@/contracts/sift';
import { formatMoney, formatShare, plural } from '@/ui/format';
import { ChoiceInHand } from './choice-in-hand';
import { Filters } from './filters';
import { toSearch, useSiftUrl } from './sift-url';
import { TermsTable } from './terms-table';
import { useChoice } from './use-choice';
import { useLines } from './use-lines';
import { ViewTabs } from './view-tabs';
import { WordsPanel } from './words-panel';

/** Reading search terms and deciding. */
export function SiftScreen() {
  const [url, setUrl] = useSiftUrl();
  const [visible, setVisible] = useState({ from: 0, to: 40 });
  const [cursor, setCursor] = useState(0);
  const lines = useLines(url, visible);
  const total = lines.first?.total ?? 0;
  const at = Math.min(cursor, Math.max(0, total - 1));
  const line: TermLine | undefined = lines.lineAt(at);
  const choice = useChoice(line, url.days);
  const onVisible = useCallback((from: number, to: number) => {
    setVisible((was) => (was.from === from && was.to === to ? was : { from, to }));
  }, []);

  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-baseline gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-[20px] font-bold">Sift</h1>
        <Filters url={url} onChange={(change) => void setUrl(change).then(() => setCursor(0))} />
        {lines.first && lines.first.costMicros > 0 && (
          <p
            className="ml-auto whitespace-nowrap text-[13px] text-soft"
            title={`${formatMoney(lines.first.unreportedMicros)} of ${formatMoney(lines.first.costMicros)}`}
          >
            {formatShare(lines.first.unreportedMicros / lines.first.costMicros)} of cost unreported
          </p>
        )}
      </header>
      <div className="flex min-h-0 flex-1">
        <WordsPanel
          url={url}
          onChoose={(holding) => void setUrl({ holding }).then(() => setCursor(0))}
          onSize={(n) => void setUrl({ n })}
        />
        <section aria-label="Search terms" className="flex min-w-0 flex-1 flex-col border-l border-line">
          <ViewTabs
            view={url.view}
            counts={lines.first?.counts}
            onChange={(view) => void setUrl({ view }).then(() => setCursor(0))}
          />
          <p className="sr-only" role="status">
            {lines.first ? `${plural(total, 'term')}, ${formatMoney(lines.first.sums.costMicros)} spent` : ''}
          </p>
          {lines.error ? (
            <p className="p-4 text-rust">{lines.error.message}</p>
          ) : (
            <TermsTable
              key={toSearch({ ...url, sort: 'without', direction: 'desc' })}
              lines={lines}
              total={total}
              cursor={at}
              choice={choice}
              url={url}
              onCursor={setCursor}
              onVisible={onVisible}
              onSort={(sort, direction) => void setUrl({ sort, direction }).then(() => setCursor(0))}
            />
          )}
        </section>
      </div>
      <ChoiceInHand line={line} choice={choice} />
    </div>
  );
}
