'use client';

import { useQuery } from '@tanstack/react-query';
import { parseAsString, useQueryState } from 'nuqs';
import { useState } from 'react';
import type { GateAnswer } from '@/contracts/gate';
import { InHand } from '@/screens/frame/in-hand';
import { StateIcon } from '@/ui/state-icon';
import { sayCampaign, sayWhole } from './say-answer';
import { formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useLayout, type Sort } from '@/ui/table/use-layout';
import { MatchChip } from '@/ui/match-chip';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';
import { ErrorText } from '@/ui/said';

/** Any query: does it get through, where, and which negative stops it. */
export function GateScreen() {
  const routes = useRoutes();
  const [query] = useQueryState('query', parseAsString.withDefault(''));
  const { data, error } = useQuery({
    ...routes.query('GET gate', { query: { query } }),
    enabled: query !== '',
  });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-baseline gap-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">Gate check</h1>
        <p className="min-w-0 truncate text-soft">
          {query === ''
            ? 'Type a query in the field above; the key g goes there.'
            : `Would “${query}” get through?`}
        </p>
      </header>
      <ErrorText error={error} isWhole />
      {data &&
        (data.text === '' ? (
          <p className="p-4">This query holds no word, so no negative can stop it.</p>
        ) : (
          <Answer answer={data} />
        ))}
      <InHand>
        {data ? (
          <div className="mt-1 text-table">
            <p>
              Compared as <b>{data.text}</b>
            </p>
            {data.stoppedByTray + data.openedByTray > 0 ? (
              <p className="text-pine">
                <StateIcon kind="drafted" /> With the tray it would{' '}
                {data.stoppedByTray > 0
                  ? `be stopped in ${counted(data.stoppedByTray, 'ad group')} more`
                  : `pass in ${counted(data.openedByTray, 'ad group')} more`}
                .
              </p>
            ) : (
              <p className="text-soft">The tray changes nothing for it.</p>
            )}
          </div>
        ) : (
          <p className="mt-1 text-table text-soft">Nothing is asked yet.</p>
        )}
      </InHand>
    </div>
  );
}

type Stopper = GateAnswer['stoppers'][number];
type CampaignAnswer = GateAnswer['campaigns'][number];

function Answer({ answer }: { answer: GateAnswer }) {
  return (
    <section aria-label="Answer" className="flex min-h-0 flex-1 flex-col">
      <div className="px-4 pt-3">
        <p className="font-title text-figure font-bold" role="status" data-testid="gate-answer">
          <StateIcon kind={answer.open === 0 ? 'stopped' : 'open'} className="mr-2" />
          {sayWhole(answer)}
        </p>
        <p className="mb-3 text-table text-soft">
          Of {counted(answer.adGroups, 'live ad group')} in this account. What is paused or ended serves
          nothing. Negatives are literal: plurals and misspellings pass.
        </p>
      </div>
      {answer.stoppers.length > 0 && (
        <>
          <h2 className="px-4 pb-1 text-base font-semibold">What stops it</h2>
          <div
            className="mb-3 flex shrink-0 flex-col border-y border-line"
            style={{ height: Math.min(220, HEAD_PX + ROW_PX * answer.stoppers.length) }}
          >
            <AnswerTable id="stoppers" name="What stops it" columns={STOPPERS} rows={answer.stoppers} />
          </div>
        </>
      )}
      <h2 className="px-4 pb-1 text-base font-semibold">Campaign by campaign</h2>
      <AnswerTable
        id="gate-campaigns"
        name="Campaign by campaign"
        columns={CAMPAIGNS}
        rows={answer.campaigns}
      />
    </section>
  );
}

const [HEAD_PX, ROW_PX] = [38, 30];

type TableProps<Row> = { id: string; name: string; columns: readonly Column<Row>[]; rows: readonly Row[] };

function AnswerTable<Row extends Stopper | CampaignAnswer>({ id, name, columns, rows }: TableProps<Row>) {
  const [sort, setSort] = useState<Sort | null>(null);
  const [cursor, setCursor] = useState(0);
  const layout = useLayout(id, columns, rows, sort);
  return (
    <DataTable
      id={id}
      label={name}
      layout={layout}
      count={rows.length}
      rowAt={(index) => layout.rows[index]}
      cursor={Math.min(cursor, Math.max(0, rows.length - 1))}
      onCursor={setCursor}
      sort={sort}
      onSort={setSort}
      isAside={id === 'stoppers'}
      saveAs={`gate check, ${name.toLowerCase()}`}
    />
  );
}

const STOPPERS: readonly Column<Stopper>[] = [
  {
    ...{ id: 'negative', name: 'negative', px: 180, share: 1, isText: true, isSortable: true },
    value: ({ text }) => text,
    cell: ({ text, match, state }) => (
      <>
        <StateIcon kind={state === 'in the tray' ? 'drafted' : 'stopped'} /> <b>{text}</b>{' '}
        <MatchChip match={match} />
        {state !== 'in force' && <span className="text-pine"> {state}</span>}
      </>
    ),
  },
  {
    ...{ id: 'match', name: 'match', px: 60, isText: true, isSortable: true, isOff: true },
    value: ({ match }) => match,
    cell: ({ match }) => match,
  },
  {
    ...{ id: 'where', name: 'where it sits', px: 160, share: 1, isText: true, isSortable: true },
    value: ({ placeName }) => placeName,
    cell: ({ placeName }) => placeName,
  },
  {
    ...{ id: 'adGroups', name: 'ad groups', px: 70, isSortable: true },
    value: ({ adGroups }) => adGroups,
    cell: ({ adGroups }) => formatCount(adGroups),
  },
  {
    ...{ id: 'campaigns', name: 'stops it in', px: 180, share: 2, isText: true, isSortable: true },
    value: ({ campaigns }) => campaigns.join(', '),
    cell: ({ campaigns }) => <span title={campaigns.join(', ')}>{campaigns.join(', ')}</span>,
  },
];

const CAMPAIGNS: readonly Column<CampaignAnswer>[] = [
  {
    ...{ id: 'campaign', name: 'campaign', px: 180, share: 1, isText: true, isSortable: true },
    value: ({ name }) => name,
    cell: ({ name, open }) => (
      <>
        <StateIcon kind={open === 0 ? 'stopped' : 'open'} /> <b>{name}</b>
      </>
    ),
  },
  {
    ...{ id: 'passes', name: 'it passes in', px: 170, share: 1, isText: true, isSortable: true },
    value: sayCampaign,
    cell: (campaign) => sayCampaign(campaign),
  },
  {
    ...{ id: 'stoppedIn', name: 'stopped in', px: 170, share: 1, isText: true, isSortable: true },
    value: ({ stoppedIn }) => stoppedIn.join(', '),
    cell: ({ stopped, open, stoppedIn }) => (
      <span className="text-soft" title={stoppedIn.join(', ')}>
        {stopped > 0 && open > 0 ? stoppedIn.join(', ') : ''}
      </span>
    ),
  },
];
