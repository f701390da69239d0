'use client';

import { useMoney } from '@/screens/frame/money';
import { useCallback, useState } from 'react';
import { toast } from 'sonner';
import { Explain } from '@/ui/explain';
import { formatShare } from '@/ui/format';
import { Filters } from './filters/filters';
import { MendedNote } from './filters/mended-note';
import { ViewsMenu } from './filters/views-menu';
import { BatchInHand } from './hand/batch/batch-in-hand';
import { ChoiceInHand } from './hand/choice/choice-in-hand';
import { useBatch } from './hand/batch/use-batch';
import { useChoice } from './hand/choice/use-choice';
import { KeptList } from './kept-list';
import { PassScreen } from './pass/pass-screen';
import { EvidencePlot } from './plot/evidence-plot';
import { toFilters, toSearch, useSiftUrl, type SiftUrl } from './sift-url';
import { countMarks, toSelection } from './table/marks';
import { TermsTable } from './table/terms-table';
import { useLineInHand } from './table/use-line-in-hand';
import { useMarks } from './table/use-marks';
import { useLooked } from './use-looked';
import { ViewTabs } from './view-tabs';
import { WordsPanel } from './words/words-panel';
import { useBesideDays } from '@/screens/frame/beside-columns';
import { BesideSums } from './beside-sums';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';
import { ErrorText } from '@/ui/said';

/** Reading search terms and deciding, term by term or by the guided pass. */
export function SiftScreen() {
  const [url, setUrl] = useSiftUrl();
  const change = useCallback((next: Partial<SiftUrl>) => void setUrl(next), [setUrl]);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <MendedNote />
      {url.show === 'pass' ? (
        <PassScreen url={url} onChange={change} />
      ) : (
        <TermsScreen url={url} onChange={change} />
      )}
    </div>
  );
}

type Props = { url: SiftUrl; onChange: (change: Partial<SiftUrl>) => void };

function TermsScreen({ url, onChange: change }: Props) {
  const formatMoney = useMoney();
  const { call } = useRoutes();
  const sorted = toSearch(url, { sort: url.sort, direction: url.direction });
  const [showsKeywords, setShowsKeywords] = useState(false);
  const [showsKept, setShowsKept] = useState(false);
  const beside = useBesideDays();
  const { lines, total, at, line, goTo } = useLineInHand(url, beside, sorted);
  const choice = useChoice(line, url);
  const view = toSearch(url);
  const { marks, mark, markAll, unmarkAll } = useMarks(view);
  const marked = countMarks(marks, total);
  const batch = useBatch(
    marked > 0 ? toSelection(marks, toFilters(url)) : undefined,
    marked,
    url.days,
    unmarkAll,
  );
  useLooked(line?.id);

  const showRegion = useCallback((region: string) => change({ region, show: 'table' }), [change]);
  const toggleKeywords = () => setShowsKeywords((was) => !was);

  async function nextUnseen() {
    const { index } = await call('GET sift/unseen', {
      query: { ...toFilters(url), sort: url.sort, direction: url.direction, offset: String(at) },
    });
    if (index === null) toast('Everything that the filters show was looked at in this pass.');
    else goTo(index);
  }

  return (
    <>
      <header className="flex items-start gap-3 border-b border-line bg-paper px-4 py-1.5 max-[900px]:flex-wrap max-[900px]:gap-y-0 max-[900px]:py-0.5">
        <h1 className="font-title text-title leading-7 font-bold">Sift</h1>
        <span className="flex flex-col items-start gap-0.5 pt-0.5">
          <ViewsMenu url={url} onChange={change} />
          <button
            type="button"
            className="min-h-6 text-table whitespace-nowrap text-pine hover:underline"
            onClick={() => change({ show: 'pass' })}
          >
            What surely can’t pay
          </button>
        </span>
        <div className="min-w-0 flex-1 pt-1 max-[900px]:order-last max-[900px]:basis-full">
          <Filters url={url} onChange={change} />
          {beside && lines.first?.beside && <BesideSums sums={lines.first.beside} days={beside} />}
        </div>
        {lines.first && lines.first.costMicros > 0 && (
          <p className="ml-auto pt-1 text-right text-small leading-4 text-soft">
            <Explain
              about="unreported cost"
              trigger={`${formatShare(lines.first.unreportedMicros / lines.first.costMicros)} of cost`}
            >
              {formatMoney(lines.first.unreportedMicros)} of {formatMoney(lines.first.costMicros)} was spent
              on queries that the platform does not name. No negative can be made from them.
            </Explain>
            <br />
            unreported
          </p>
        )}
      </header>
      <div className="flex min-h-0 flex-1">
        <WordsPanel url={url} onChange={change} />
        <section aria-label="Search terms" className="flex min-w-0 flex-1 flex-col border-l border-line">
          <ViewTabs
            view={url.view}
            counts={lines.first?.counts}
            pass={lines.first?.pass}
            shows={url.show}
            onChange={(next) => change({ view: next })}
            onShow={(show) => change({ show })}
            onKeptList={() => setShowsKept(true)}
          >
            <p className="sr-only" role="status">
              {lines.first
                ? `${counted(total, 'term')}, ${formatMoney(lines.first.sums.costMicros)} spent`
                : ''}
            </p>
            {lines.error ? (
              <ErrorText error={lines.error} isWhole />
            ) : url.show === 'plot' ? (
              <EvidencePlot url={url} onRegion={showRegion} />
            ) : (
              <TermsTable
                view={sorted}
                total={total}
                cursor={at}
                choice={choice}
                marks={marks}
                url={url}
                beside={beside}
                actions={{
                  toggleKeywords,
                  putBatch: marked > 0 ? () => void batch.put() : undefined,
                  nextUnseen: () => void nextUnseen(),
                }}
                onCursor={goTo}
                onMark={mark}
                onMarkAll={markAll}
                onUnmarkAll={unmarkAll}
                onSort={(sort, direction) => change({ sort, direction })}
              />
            )}
          </ViewTabs>
        </section>
      </div>
      {marked > 0 ? (
        <BatchInHand count={marked} batch={batch} onUnmark={unmarkAll} />
      ) : (
        <ChoiceInHand
          line={line}
          choice={choice}
          days={url.days}
          showsKeywords={showsKeywords}
          onKeywords={toggleKeywords}
        />
      )}
      {showsKept && <KeptList onClose={() => setShowsKept(false)} />}
    </>
  );
}
