'use client';

import { useMemo } from 'react';
import { counted } from '@/core';
import type { Candidate } from '@/contracts/candidates';
import { useMoney, useUnits } from '@/screens/frame/money';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { marksByKey } from '@/ui/table/row-marks';
import { useLayout } from '@/ui/table/use-layout';
import { saveFile } from '@/ui/table/cells';
import { RemainderInHand } from '../hand/remainder-in-hand';
import { formatKnown, sumIn } from '../hand/sums';
import { hitOf, type Candidates } from './use-candidates';

/** Ready negatives from briefs and starter packs, each beside what it would have stopped and what it would hit. */
export function CandidatesView({ candidates, sheet }: { candidates: Candidates; sheet: { name: string } }) {
  const { data, error, rows, on, hand } = candidates;
  const columns = useColumns(candidates.sourceOf);
  const layout = useLayout('candidates', columns, rows, null);
  if (error) return <ErrorText error={error} isWhole />;
  const off = rows.length - on.length;
  const inHand = rows[candidates.at];
  return (
    <>
      {data && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
          <span>
            <b className="text-ink">{formatCount(on.length)} on</b>, {formatCount(off)} off: what hits
            something is off until you turn it on.
            {data.stopped > 0 && ` ${counted(data.stopped, 'other')} stopped already.`}
          </span>
          <span className="ml-auto flex gap-1.5">
            <Button disabled={on.length === 0} onClick={() => savePack(on, sheet.name, hand.match)}>
              Save as a pack
            </Button>
            <Button tone="main" disabled={on.length === 0} onClick={() => void candidates.putAll()}>
              Put {formatCount(on.length)} in the tray
            </Button>
          </span>
        </div>
      )}
      <DataTable
        id="candidates"
        label="Candidates"
        layout={layout}
        count={rows.length}
        rowAt={(index) => rows[index]}
        cursor={candidates.at}
        onCursor={candidates.setCursor}
        sort={null}
        marks={marksByKey(rows, ({ text }) => text, candidates.onTexts, candidates.setOn)}
        onKey={(event) => hand.onKey(event)}
        isStale={candidates.isStale}
        saveAs="candidates"
        keysHelp="Arrows move; Space turns one on or off; Enter puts the one in hand in the tray, m turns the match type, o keeps it out of the way, x drops it from the sheet."
        empty={
          data && (
            <p>
              No candidate waits here. Gather a brief or a starter pack: each is checked against the account.
            </p>
          )
        }
      />
      <RemainderInHand
        remainder={hand}
        says={
          inHand && `From ${candidates.sourceOf(inHand)}; would stop ${counted(inHand.ideas, 'open idea')}.`
        }
      />
    </>
  );
}

/** Candidates as the file of a starter pack (packs/README.md), to share. */
function savePack(on: readonly Candidate[], name: string, match: string) {
  const pack = {
    ...{ gatepost: 'starter pack', version: 1, name: name.slice(0, 60), about: '', language: 'en', match },
    entries: on.map(({ text, forms }) => ({
      text,
      ...(forms.length > 1 && { variants: forms.slice(1) }),
    })),
  };
  saveFile(new Blob([`${JSON.stringify(pack, null, 2)}\n`], { type: 'application/json' }), `${name}.json`);
}

function useColumns(sourceOf: Candidates['sourceOf']): readonly Column<Candidate>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(
    (): Column<Candidate>[] => [
      {
        ...{ id: 'text', name: 'candidate', px: 150, share: 1, isText: true },
        value: ({ text }) => text,
        cell: ({ text, forms }) => (
          <>
            <b>{text}</b>
            {forms.length > 1 && <span className="ml-1.5 text-soft">{forms.slice(1).join(', ')}</span>}
          </>
        ),
      },
      {
        ...{ id: 'ideas', name: 'ideas', fullName: 'open ideas that it would stop', px: 56 },
        value: ({ ideas }) => ideas,
        cell: ({ ideas }) => formatCount(ideas),
      },
      {
        ...{ id: 'terms', name: 'terms here', fullName: 'terms that it would have stopped', px: 78 },
        value: ({ weight }) => weight.terms,
        cell: ({ weight }) => formatCount(weight.terms),
      },
      {
        ...{ id: 'cost', name: 'cost', px: 66 },
        value: ({ weight }) => units(sumIn(weight, 'costMicros')),
        cell: ({ weight }) => money(sumIn(weight, 'costMicros')),
      },
      {
        ...{ id: 'conversions', name: 'conv.', fullName: 'conversions', px: 50 },
        value: ({ weight }) => sumIn(weight, 'conversions'),
        cell: ({ weight }) => formatKnown(sumIn(weight, 'conversions')),
      },
      {
        ...{ id: 'hits', name: 'hits', px: 150, isText: true },
        value: (row) => hitOf(row) ?? null,
        cell(row) {
          const hit = hitOf(row);
          return hit === undefined ? (
            <span className="text-soft">nothing</span>
          ) : (
            <span className="text-rust">{hit}</span>
          );
        },
      },
      {
        ...{ id: 'from', name: 'from', px: 120, share: 1, isText: true, yields: true },
        value: sourceOf,
        cell: (row) => <span className="text-soft">{sourceOf(row)}</span>,
      },
    ],
    [money, units, sourceOf],
  );
}
