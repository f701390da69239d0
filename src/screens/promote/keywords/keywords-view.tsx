'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { OwnKeywordLine } from '@/contracts/promotion';
import { PILES } from '@/contracts/knots';
import { useLineTable } from '@/screens/frame/line-table';
import { useMoney } from '@/screens/frame/money';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';
import { Select } from '@/ui/select';
import { DataTable } from '@/ui/table/data-table';
import { Piles } from '@/screens/frame/piles';
import { SURE, usePromoteUrl } from '../promote-url';
import { KeywordInHand } from './keyword-in-hand';
import { useKeywordColumns } from './keyword-columns';
import { useOwnKeyword } from './use-own-keyword';

const NO_LINES: OwnKeywordLine[] = [];
const keyOf = ({ id }: OwnKeywordLine) => id;
const PILE_NAMES = { open: 'open', left: 'left for more clicks' };

/** Exact keywords that miss their target, as they are asked for. */
export function useOwnKeywords() {
  const { query } = useRoutes();
  const [{ pile, sure }] = usePromoteUrl();
  return useQuery({
    ...query('GET promotion/keywords', { query: { pile, sure } }),
    placeholderData: keepPreviousData,
  });
}

/** Exact keywords that miss their target: each gets a lower bid, a pause, or more time. */
export function KeywordsView({ asked }: { asked: ReturnType<typeof useOwnKeywords> }) {
  const [url, setUrl] = usePromoteUrl();
  const money = useMoney();
  const view = asked.data;
  const lines = view?.lines ?? NO_LINES;
  const columns = useKeywordColumns();
  const table = useLineTable('own keywords', columns, lines, {
    ...{ first: { by: 'cost', isDown: true }, over: url.pile, keyOf },
  });
  const keyword = useOwnKeyword(table.line, table.marked);
  if (asked.error) return <ErrorText error={asked.error} isWhole />;
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
        <Piles
          piles={PILES}
          names={PILE_NAMES}
          counts={view?.counts}
          value={url.pile}
          onChange={(pile) => void setUrl({ pile })}
        />
        exact keywords that miss their target, to
        <Select
          label="How sure"
          look="word"
          options={SURE.map((key) => ({ key, says: `${key} % sure or more` }))}
          value={url.sure}
          onChange={(sure) => void setUrl({ sure })}
        />
        {view && view.costMicros > 0 && (
          <span className="ml-auto">{money(view.costMicros)} on all days that are kept</span>
        )}
      </div>
      <DataTable
        label="Own keywords that miss"
        {...table.table}
        marks={table.marks}
        onKey={keyword.onKey}
        isStale={asked.isPlaceholderData}
        saveAs="exact keywords that miss"
        keysHelp="Arrows move, Space marks; Enter lowers the bid to what pays, p pauses, l leaves it for more clicks or takes it up again."
        empty={view && <p>No exact keyword misses its target so surely.</p>}
      />
      <KeywordInHand keyword={keyword} />
    </>
  );
}
