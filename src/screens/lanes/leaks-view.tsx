'use client';

import { useMemo, type KeyboardEvent } from 'react';
import { counted } from '@/core';
import type { Leak, ShownLanes } from '@/contracts/lanes';
import { useMay } from '@/screens/frame/account-context';
import { InHand } from '@/screens/frame/in-hand';
import { useLineTable } from '@/screens/frame/line-table';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { conversionsOf, formatConversions, formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useBroughtColumns } from './brought-columns';
import type { LanePlans } from './use-lane-plans';

const keyOf = ({ query, served }: Leak) => `${served} ${query}`;

type Props = { shown: ShownLanes; plans: LanePlans };

/** Queries that another tier served than the plan says, each with its cause and what mends it. */
export function LeaksView({ shown, plans }: Props) {
  const { leaks } = shown;
  const columns = useLeakColumns(shown);
  const table = useLineTable('leaks', columns, leaks.first, {
    ...{ first: { by: 'cost', isDown: true }, over: shown.key, keyOf },
  });
  const { may } = useMay('prepare');
  const lines = table.marked.length > 0 ? table.marked : table.line ? [table.line] : [];
  const mending = useMending(shown, plans, lines);
  function onKey(event: KeyboardEvent): boolean {
    if (event.key !== 'Enter' || !may) return false;
    mending.mend();
    return true;
  }
  return (
    <>
      <DataTable
        label="Leaks"
        {...table.table}
        marks={table.marks}
        onKey={onKey}
        saveAs={`leaks of ${shown.name}`}
        keysHelp="Arrows move, Space marks; Enter puts what mends it in the tray."
        empty={<p>In these days each query was served by the tier that the plan says.</p>}
      />
      {leaks.count > leaks.first.length && (
        <p className="border-t border-line px-3 py-1 text-table text-soft">
          The dearest {formatCount(leaks.first.length)} of {formatCount(leaks.count)}.
        </p>
      )}
      <InHand
        title={lines.length > 1 ? `${formatCount(lines.length)} marked` : lines[0]?.query}
        actions={
          mending.says !== null && (
            <Button tone="main" disabled={!may} onClick={mending.mend}>
              {mending.says} <Key>↵</Key>
            </Button>
          )
        }
      >
        {lines.length === 0 ? (
          <p className="mt-1 text-table text-soft">Nothing leaks.</p>
        ) : lines.length === 1 ? (
          <LeakInHand leak={lines[0]!} shown={shown} />
        ) : (
          <p className="mt-1 text-table">
            {counted(mending.changes.length, 'change')} would mend {counted(mending.mended, 'leak')} of{' '}
            {formatCount(lines.length)}.
          </p>
        )}
      </InHand>
    </>
  );
}

/** What mends the leaks in hand. */
function useMending(shown: ShownLanes, plans: LanePlans, lines: readonly Leak[]) {
  const changes = [
    ...new Map(
      lines.flatMap(({ mends }) => mends.map((one) => [JSON.stringify(one), one] as const)),
    ).values(),
  ];
  const [only] = lines;
  const entryTerm = lines.length === 1 ? only!.entryTerm : null;
  const { plan } = shown;
  return {
    changes,
    mended: lines.filter(({ mends }) => mends.length > 0).length,
    says: entryTerm
      ? `Let it into ${shown.tiers[entryTerm.tier]!.name}`
      : changes.length > 0
        ? 'Put the mend in the tray'
        : null,
    mend() {
      if (entryTerm && plan) void plans.move(plan, entryTerm.text, null, entryTerm.tier);
      else if (changes.length > 0) void plans.put(shown, changes, `mend ${counted(lines.length, 'leak')}`);
    },
  };
}

/** Why it leaks, and what would move if it did not: by the rates of the tier that the plan says. */
function LeakInHand({ leak, shown: { tiers } }: { leak: Leak; shown: ShownLanes }) {
  const money = useMoney();
  const [own, served] = [tiers[leak.own]!, tiers[leak.served]!];
  const { clicks, costMicros, conversions } = own.byPlan;
  const perClick = clicks > 0 ? costMicros / clicks : null;
  const rate = clicks > 0 && conversions !== null ? conversions / clicks : null;
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table">
      <p>
        <b>{served.name}</b> served it; by the plan it is for <b>{own.name}</b>: {leak.because}.
      </p>
      <p>
        {counted(leak.clicks, 'click')}, {money(leak.costMicros)}
        {leak.conversions !== null && `, ${conversionsOf({ conversions: leak.conversions })}`}.
      </p>
      {leak.noMend !== null && <p className="text-soft">{leak.noMend}</p>}
      <table className="text-right" aria-label="After the mend">
        <thead className="text-small text-soft">
          <tr>
            <th className="text-left font-normal">after the mend</th>
            <th className="font-normal">clicks</th>
            <th className="font-normal">cost</th>
            <th className="font-normal">conv.</th>
          </tr>
        </thead>
        <tbody>
          <tr className="border-t border-line">
            <td className="text-left">{served.name}</td>
            <td>−{formatCount(leak.clicks)}</td>
            <td>−{money(leak.costMicros)}</td>
            <td>{leak.conversions === null ? '–' : `−${formatConversions(leak.conversions)}`}</td>
          </tr>
          <tr className="border-t border-line">
            <td className="text-left">{own.name}</td>
            <td>+{formatCount(leak.clicks)}</td>
            <td>{perClick === null ? '–' : `+${money(perClick * leak.clicks)}`}</td>
            <td>{rate === null ? '–' : `+${formatConversions(rate * leak.clicks)}`}</td>
          </tr>
        </tbody>
      </table>
      <p className="text-small text-soft">
        By what a click costs and brings in {own.name}. What another bid would win besides, no report tells.
      </p>
    </div>
  );
}

function useLeakColumns({ tiers }: ShownLanes): readonly Column<Leak>[] {
  const brought = useBroughtColumns<Leak>();
  return useMemo(() => {
    const nameOf = (number: number) => tiers[number]?.name ?? '';
    return [
      {
        ...{ id: 'query', name: 'query', px: 150, share: 1.2, isText: true, isSortable: true },
        value: ({ query }) => query,
        cell: ({ query }) => <b>{query}</b>,
      },
      {
        ...{ id: 'own', name: 'by the plan', px: 92, share: 0.6, isText: true, isSortable: true },
        value: ({ own }) => nameOf(own),
        cell: ({ own }) => nameOf(own),
      },
      {
        ...{ id: 'served', name: 'served by', px: 92, share: 0.6, isText: true, isSortable: true },
        value: ({ served }) => nameOf(served),
        cell: ({ served }) => <span className="text-rust">{nameOf(served)}</span>,
      },
      ...brought,
      {
        ...{ id: 'because', name: 'because', px: 200, share: 2.6, isText: true, isSortable: true },
        value: ({ because }) => because,
        cell: ({ because, cause }) => (
          <span className={cause === 'mended' ? 'text-soft' : ''}>{because}</span>
        ),
      },
    ];
  }, [tiers, brought]);
}
