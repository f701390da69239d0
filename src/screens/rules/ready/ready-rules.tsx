'use client';

import { useMemo } from 'react';
import type { ReadyRule, RulesView } from '@/contracts/rules';
import { InHand } from '@/screens/frame/in-hand';
import { useLineTable } from '@/screens/frame/line-table';
import { Button, Key } from '@/ui/button';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { sayRule, type Saying } from '../say-rule';
import { useSaying } from '../use-saying';

const NONE: ReadyRule[] = [];
const keyOf = ({ name }: ReadyRule) => name;

type Props = { view: RulesView | undefined; onBegin: (name: string) => void };

/** Ready rules, each with the reason for its numbers in this account. */
export function ReadyRules({ view, onBegin }: Props) {
  const saying = useSaying(view);
  const columns = useReadyColumns(saying);
  const table = useLineTable('ready rules', columns, view?.ready ?? NONE, {
    ...{ first: { by: '', isDown: false }, over: 'ready', keyOf },
  });
  const { line } = table;
  return (
    <>
      <DataTable
        label="Ready rules"
        {...table.table}
        onKey={(event) => {
          if (event.key !== 'Enter' || !line) return false;
          onBegin(line.name);
          return true;
        }}
        saveAs="ready rules"
        keysHelp="Arrows move; Enter begins a rule from the one in hand."
        empty={view && <p>No ready rule fits this account.</p>}
      />
      {line && (
        <InHand
          title={line.name}
          actions={
            <Button tone="main" onClick={() => onBegin(line.name)}>
              Begin from it <Key>↵</Key>
            </Button>
          }
        >
          <div className="mt-1 flex flex-col gap-1.5 text-table">
            <p>{sayRule(line.rule, saying)}.</p>
            <p className="text-soft">{line.reason}</p>
          </div>
        </InHand>
      )}
    </>
  );
}

function useReadyColumns(saying: Saying): readonly Column<ReadyRule>[] {
  return useMemo(
    () => [
      {
        ...{ id: 'name', name: 'ready rule', px: 170, share: 1, isText: true, isSortable: true },
        value: ({ name }) => name,
        cell: ({ name }) => <b>{name}</b>,
      },
      {
        ...{ id: 'says', name: 'says', px: 200, share: 1.8, isText: true },
        value: ({ rule }) => sayRule(rule, saying),
        cell: ({ rule }) => sayRule(rule, saying),
      },
      {
        ...{ id: 'reason', name: 'why these numbers', px: 200, share: 1.8, isText: true, yields: true },
        value: ({ reason }) => reason,
        cell: ({ reason }) => <span className="text-soft">{reason}</span>,
      },
    ],
    [saying],
  );
}
