'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ReadDecisions } from '@/core';
import type { ReportFileView } from '@/contracts/intake';
import { InHand } from '@/screens/frame/in-hand';
import { ColumnInHand } from './column-in-hand';
import { ColumnsTable } from './columns-table';
import { DaysPanel } from './days-panel';
import { FormBar } from './form-bar';
import { LoadPanel } from './load-panel';
import { Preview } from './preview';
import { Questions } from './questions';
import { Refused, Sums } from './sums';
import { useRefresh } from '@/screens/frame/data/refresh';
import { PARTS } from '@/contracts/routes';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';
import { EmptyState, ErrorText } from '@/ui/said';

/** How one file was read, before anything is stored; corrections show their effect at once. */
export function ReadingView({ file }: { file: ReportFileView }) {
  const refresh = useRefresh();
  /** null: as Gate Post finds by itself, or by a recipe */
  const [decisions, setDecisions] = useState<ReadDecisions | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const { query } = useRoutes();
  const { data, error, isPlaceholderData } = useQuery({
    ...query('POST intake/[file]/reading', { params: { file: file.id }, body: decisions }),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    refetchInterval: ({ state }) => (state.data?.whole ? 700 : false),
  });
  if (error) return <ErrorText error={error} isWhole />;
  if (!data) return <EmptyState>Reading …</EmptyState>;
  // What was said last counts, also while its reading is on the way: two answers in a row both hold.
  const answer = { ...data, decisions: decisions ?? data.decisions };
  const { reading } = answer;
  const decide = (change: ReadDecisions) => setDecisions({ ...answer.decisions, ...change });
  const column = reading.columns.find((c) => c.index === chosen);
  return (
    <>
      <FormBar answer={answer} onDecide={setDecisions} />
      <div
        className={`min-h-0 flex-1 overflow-y-auto ${isPlaceholderData ? 'opacity-60' : ''}`}
        tabIndex={0}
        role="group"
        aria-label="How the file was read"
      >
        {data.whole && (
          <p role="status" className="border-b border-line bg-straw/40 px-4 py-1 text-table">
            A large file: these are its first {counted(reading.rows, 'row')}. The sums of the whole follow;{' '}
            {counted(data.whole.rowsRead, 'row')} read so far.
          </p>
        )}
        {reading.error && reading.error.category !== 'undecided' && (
          <p role="alert" className="m-4 border-l-[3px] border-rust bg-rust/10 px-3 py-2">
            <b>{reading.error.category}:</b> {reading.error.message} Nothing was stored.
            {reading.headerLine === 0 && ' Choose what each column is taken for in the table under this.'}
          </p>
        )}
        {reading.columns.length > 0 && (
          <div className="grid grid-cols-[minmax(0,1fr)_264px] gap-5 px-4 py-3">
            <ColumnsTable answer={answer} chosen={chosen} onChoose={setChosen} onDecide={setDecisions} />
            <div>
              <Sums reading={reading} currency={data.currency} isPart={data.whole !== null} />
              <Refused file={file} reading={reading} />
            </div>
          </div>
        )}
        {reading.preview.length > 0 && <Preview reading={reading} />}
      </div>
      <InHand title={column ? `column ${column.header}` : file.name}>
        <Questions reading={reading} decisions={answer.decisions} onDecide={decide} />
        {column && (
          <ColumnInHand
            column={column}
            decisions={answer.decisions}
            onDecide={decide}
            onClose={() => setChosen(null)}
          />
        )}
        {file.state !== 'loaded' && reading.kind === 'search terms' && (
          <DaysPanel daysThere={data.daysThere} brought={reading.rowsByDay} />
        )}
        <LoadPanel
          file={file}
          answer={answer}
          isStale={isPlaceholderData}
          onLoaded={() => void refresh(PARTS)}
        />
      </InHand>
    </>
  );
}
