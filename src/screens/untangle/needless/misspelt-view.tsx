'use client';

import { useMemo } from 'react';
import { counted } from '@/core';
import type { MisspeltLine, MisspeltView as View } from '@/contracts/untangle';
import { inDays, useDays } from '@/screens/frame/data/days';
import { InHand } from '@/screens/frame/in-hand';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useMoney, useUnits } from '@/screens/frame/money';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button, Key } from '@/ui/button';
import { conversionsOf, formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { LeaveButton, LeftOrLeaving } from '../leaving/leave';
import { PileChoice } from '../leaving/pile-choice';
import { useLeaving } from '../leaving/use-leaving';
import { useKnots } from '../use-knots';
import { NEGATIVE_COLUMNS } from '../negative-columns';

const NO_LINES: MisspeltLine[] = [];
const keyOf = ({ key }: MisspeltLine) => key;

/** Negatives that stop nothing, since nobody writes their words like that; each with what was meant. */
export function MisspeltView({ view }: { view: View | undefined }) {
  const { draft } = useTrayActions();
  const [single] = useSingleKeys();
  const [days] = useDays();
  const lines = view?.lines ?? NO_LINES;
  const columns = useColumns();
  const knots = useKnots('misspelt', columns, lines, { kind: 'misspelt', by: 'cost', keyOf });
  const { line } = knots;
  const leaving = useLeaving('misspelt', line && { ...line, says: `“${line.negative.text}”` });
  const canMend = line !== undefined && line.hits.count === 0;

  const knot = line && { knot: { kind: 'misspelt' as const, key: line.key, ...inDays(days) } };

  async function mend() {
    if (!line || !canMend) return;
    const { text, match, place } = line.negative;
    const why = `misspelt: “${text}” stops nothing, “${line.meant}” was meant`;
    await draft(
      [
        { change: { kind: 'add negative', text: line.meant, match, place }, why, ...knot },
        { change: { kind: 'remove negative', text, match, place }, why, ...knot },
      ],
      { said: `“${line.meant}” in the place of “${text}”` },
    );
  }

  async function remove() {
    if (!line) return;
    const { text, match, place } = line.negative;
    const why = 'misspelt: it stops nothing in any data';
    await draft([{ change: { kind: 'remove negative', text, match, place }, why, ...knot }]);
  }

  return (
    <>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1 text-table">
        <PileChoice counts={view?.counts} />
      </div>
      <DataTable
        label="Misspelt"
        {...knots.table}
        onKey={(event) => {
          if (event.key === 'Enter') void mend();
          else if (isPlain(event, single) && event.key === 'r') void remove();
          else if (isPlain(event, single) && event.key === 'l') leaving.turn();
          else return false;
          return true;
        }}
        saveAs="misspelt negatives"
        keysHelp="Arrows move; Enter puts the right word in its place, r removes it, l leaves it or takes it up again."
        empty={view && <p>Every negative is written as somebody writes it, or is near to nothing.</p>}
      />
      {line && (
        <InHand
          title={`${line.negative.text} → ${line.meant}`}
          actions={
            !leaving.isLeaving && (
              <div className="flex flex-wrap gap-1.5">
                <Button tone="main" disabled={!canMend} onClick={() => void mend()}>
                  Put it right <Key>↵</Key>
                </Button>
                <Button onClick={() => void remove()}>
                  Remove it <Key>r</Key>
                </Button>
                <LeaveButton leaving={leaving} />
              </div>
            )
          }
        >
          <Told line={line} />
          <LeftOrLeaving leaving={leaving} />
        </InHand>
      )}
    </>
  );
}

/** What it stops, and what the word that was meant would stop. */
function Told({ line: { negative, meant, would, hits } }: { line: MisspeltLine }) {
  const money = useMoney();
  return (
    <>
      <p className="mt-1 text-table">
        Stops nothing in {negative.placeName}, in any data there is.
        {would.terms === 0
          ? ` “${meant}” would stop nothing there in these days, either.`
          : ` “${meant}” would stop ${counted(would.terms, 'term')} there: ${counted(would.clicks ?? 0, 'click')}, ${money(would.costMicros ?? 0)}, ${conversionsOf(would)}.`}
      </p>
      {hits.count > 0 && (
        <p className="mt-1 text-table text-rust">
          It would stop {counted(hits.count, 'protected term')}:{' '}
          {hits.first.map((text) => `“${text}”`).join(', ')}
          {hits.count > hits.first.length ? ' …' : '.'} Remove it instead.
        </p>
      )}
    </>
  );
}

function useColumns(): readonly Column<MisspeltLine>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo(
    (): Column<MisspeltLine>[] => [
      ...NEGATIVE_COLUMNS,
      {
        ...{ id: 'meant', name: 'was meant', px: 140, share: 1, isText: true, isSortable: true },
        value: ({ meant }) => meant,
        cell: ({ meant }) => meant,
      },
      {
        ...{
          id: 'terms',
          name: 'would stop',
          fullName: 'terms that it would stop',
          px: 80,
          isSortable: true,
        },
        value: ({ would }) => would.terms,
        cell: ({ would }) => formatCount(would.terms),
      },
      {
        ...{ id: 'cost', name: 'cost', fullName: 'cost of these', px: 76, isSortable: true },
        value: ({ would }) => units(would.costMicros),
        cell: ({ would }) => money(would.costMicros ?? 0),
      },
    ],
    [money, units],
  );
}
