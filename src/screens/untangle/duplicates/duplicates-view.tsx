'use client';

import { useState } from 'react';
import { counted, daysBetween } from '@/core';
import type { DuplicateLine, DuplicatesView as View } from '@/contracts/duplicates';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { FileButton } from '@/ui/file-button';
import { formatCount, formatDays } from '@/ui/format';
import { DataTable } from '@/ui/table/data-table';
import { useKnots } from '../use-knots';
import { ApartDialog } from './apart-dialog';
import { DecisionsDialog } from './decisions-dialog';
import { useDuplicateColumns } from './duplicate-columns';
import { GroupInHand } from './group-in-hand';
import { PileChoice } from '../leaving/pile-choice';
import { Members } from './members';
import { useDuplicatesQuery, useGroupInHand } from './use-duplicates';
import { WhichKeywords } from './which-keywords';

const NO_LINES: DuplicateLine[] = [];
const keyOf = ({ key }: DuplicateLine) => key;
const LINK = 'inline-flex min-h-6 items-center text-pine underline';

type Props = { view: View | undefined; isStale: boolean };

/** Keywords that compete with each other; below them those of the group in hand, side by side. */
export function DuplicatesView({ view, isStale }: Props) {
  const lines = view?.lines ?? NO_LINES;
  const columns = useDuplicateColumns();
  const knots = useKnots('duplicates', columns, lines, { kind: 'duplicate', by: 'cost', keyOf });
  const { marked } = knots;
  const group = useGroupInHand(knots.line, marked);
  const clear = lines.filter(({ isClear, left }) => isClear && !left);
  return (
    <>
      <WhichKeywords view={view} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
        <PileChoice counts={view?.counts} />
        {view && <Told view={view} />}
        <span className="ml-auto flex items-center gap-2">
          <Sheets />
          <Button disabled={clear.length === 0} onClick={() => void group.end('pause', clear)}>
            {sayAllClear(clear.length)}
          </Button>
        </span>
      </div>
      <DataTable
        label="Twice"
        {...knots.table}
        marks={knots.marks}
        onKey={group.onKey}
        isStale={isStale}
        saveAs="duplicate keywords"
        keysHelp="Arrows move, Space marks; digits choose who stays, Enter pauses the others, r removes them, l leaves the group or takes it up again."
        empty={view && <p>No keyword stands twice, as it is asked.</p>}
      />
      <Members group={group} isReported={view?.report != null} />
      <GroupInHand group={group} marked={marked.length} />
    </>
  );
}

function sayAllClear(clear: number): string {
  if (clear === 1) return 'Pause the others of the clear one';
  return `Pause the others of all ${formatCount(clear)} clear ones`;
}

/** Whose figures these are; the days where they are not those that are looked at. */
function sayFigures({ report, days }: View): string {
  if (!report) return 'By the search terms. ';
  const isSame = daysBetween(report.from, report.to) + 1 === days;
  return isSame ? 'By the keyword report. ' : `By the keyword report of ${formatDays(report)}. `;
}

/** Which figures these are, what is set aside, and what can not be judged. */
function Told({ view }: { view: View }) {
  const { apart, unjudged, inTray } = view;
  const [isOpen, setOpen] = useState(false);
  const isEmpty = apart.pairs === 0 && unjudged.count === 0;
  return (
    <span>
      {sayFigures(view)}
      {inTray > 0 && `${formatCount(inTray)} more ${inTray === 1 ? 'is' : 'are'} ended by the tray. `}
      {isEmpty ? (
        'Nothing is kept apart on purpose.'
      ) : (
        <button type="button" className="min-h-6 text-pine hover:underline" onClick={() => setOpen(true)}>
          {[
            ...(apart.pairs > 0 ? [`${counted(apart.pairs, 'pair')} kept apart on purpose`] : []),
            ...(unjudged.count > 0 ? [`${formatCount(unjudged.count)} can not be judged`] : []),
          ].join(', ')}
        </button>
      )}
      {isOpen && <ApartDialog {...{ apart, unjudged }} onClose={() => setOpen(false)} />}
    </span>
  );
}

/** All groups as a sheet with a column for decisions, and the way back. */
function Sheets() {
  const { address } = useRoutes();
  const query = useDuplicatesQuery();
  const [file, setFile] = useState<File | null>(null);
  return (
    <>
      decide in a sheet:
      {(['xlsx', 'csv'] as const).map((as) => (
        <a
          key={as}
          className={LINK}
          download
          href={address('GET untangle/duplicates/sheet', { query: { ...query, as } })}
        >
          {as.toUpperCase()}
        </a>
      ))}
      <FileButton
        says="Read it…"
        label="Sheet of duplicates"
        accept=".xlsx,.csv,.tsv,.txt"
        onPick={setFile}
      />
      {file && <DecisionsDialog file={file} onClose={() => setFile(null)} />}
    </>
  );
}
