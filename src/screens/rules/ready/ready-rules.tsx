'use client';

import { useMemo } from 'react';
import type { ReadyRule, RulesView } from '@/contracts/rules';
import { InHand } from '@/screens/frame/in-hand';
import { useLineTable } from '@/screens/frame/line-table';
import { Button, Key } from '@/ui/button';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useRuleActions } from '../list/use-rule-actions';
import { sayRule, type Saying } from '../say-rule';
import { useSaying } from '../use-saying';

const NONE: ReadyRule[] = [];
/** How the one from which a sentence begins stands in the URL. */
export const beginOf = ({ ruleId, name }: ReadyRule) => (ruleId === null ? name : String(ruleId));

type Props = { view: RulesView | undefined; onBegin: (name: string) => void };

/** Ready rules, each with the reason for its numbers in this account. */
export function ReadyRules({ view, onBegin }: Props) {
  const saying = useSaying(view);
  const columns = useReadyColumns(saying);
  const table = useLineTable('ready rules', columns, view?.ready ?? NONE, {
    ...{ first: { by: '', isDown: false }, over: 'ready', keyOf: beginOf },
  });
  const { line } = table;
  const { setStates } = useRuleActions();
  const remove = (id: number, name: string) => setStates([{ id, state: 'removed' }], `“${name}” removed`);
  return (
    <>
      <DataTable
        label="Ready rules"
        {...table.table}
        onKey={(event) => {
          if (!line) return false;
          if (event.key === 'Enter') onBegin(beginOf(line));
          else if (event.key === 'Delete' && line.ruleId !== null) void remove(line.ruleId, line.name);
          else return false;
          return true;
        }}
        saveAs="ready rules"
        keysHelp="Arrows move; Enter begins a rule from the one in hand, Delete removes one of your own."
        empty={view && <p>No ready rule fits this account.</p>}
      />
      {line && (
        <InHand
          title={line.name}
          actions={
            <div className="flex flex-wrap items-center gap-1.5">
              <Button tone="main" onClick={() => onBegin(beginOf(line))}>
                Begin from it <Key>↵</Key>
              </Button>
              {line.ruleId !== null && (
                <Button onClick={() => void remove(line.ruleId!, line.name)}>
                  Remove <Key>Del</Key>
                </Button>
              )}
            </div>
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
