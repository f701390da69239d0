'use client';

import { useMemo, type KeyboardEvent } from 'react';
import { counted } from '@/core';
import type { RuleLine, RulesView, RuleState } from '@/contracts/rules';
import { useRoutes } from '@/screens/frame/data/routes';
import { InHand } from '@/screens/frame/in-hand';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useLineTable } from '@/screens/frame/line-table';
import { Button, Key } from '@/ui/button';
import { formatCount, formatDay, formatMoment } from '@/ui/format';
import { FileButton } from '@/ui/file-button';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { sayRule, type Saying } from '../say-rule';
import { useSaying } from '../use-saying';
import { useRuleActions } from './use-rule-actions';

/** Of rules that are marked; undefined where none is. */
const idsOf = (rules: readonly RuleLine[]) =>
  rules.length > 0 ? rules.map(({ id }) => id).join() : undefined;

const NO_RULES: RuleLine[] = [];
const keyOf = ({ id }: RuleLine) => String(id);

type Props = { view: RulesView | undefined; onOpen: (ruleId: number) => void };

/** All rules, with what they found; each opens as its sentence. */
export function RuleList({ view, onOpen }: Props) {
  const rules = view?.rules ?? NO_RULES;
  const saying = useSaying(view);
  const columns = useRuleColumns(saying);
  const table = useLineTable('rules', columns, rules, {
    ...{ first: { by: 'open', isDown: true }, over: 'rules', keyOf },
  });
  const { address } = useRoutes();
  const { setStates, bring } = useRuleActions();
  const [single] = useSingleKeys();
  const some = table.marked.length > 0 ? table.marked : table.line ? [table.line] : [];
  const put = (state: RuleState, said: string) => {
    table.unmark();
    return setStates(
      some.map(({ id }) => ({ id, state })),
      `${some.length === 1 ? `“${some[0]!.name}”` : counted(some.length, 'rule')} ${said}`,
    );
  };
  const turn = () => (some[0]?.state === 'on' ? put('off', 'switched off') : put('on', 'switched on'));
  const remove = () => put('removed', 'removed');
  function onKey(event: KeyboardEvent): boolean {
    if (some.length === 0) return false;
    if (event.key === 'Enter' && table.line) onOpen(table.line.id);
    else if (event.key === 'Delete') void remove();
    else if (isPlain(event, single) && event.key === 'o') void turn();
    else return false;
    return true;
  }
  return (
    <>
      <div className="flex items-center gap-2 border-b border-line px-3 py-1 text-table text-soft">
        Rules can be shared as files
        <span className="ml-auto flex gap-1.5">
          <FileButton
            says="Bring from a file…"
            label="A file of rules"
            accept=".json"
            onPick={(file) => void bring(file)}
          />
          {rules.length > 0 && (
            <a
              className="min-h-6 self-center text-pine underline"
              href={address('GET rules/file', { query: { rules: idsOf(table.marked) } })}
              download
            >
              {table.marked.length > 0 ? 'Save the marked ones' : 'Save all as a file'}
            </a>
          )}
        </span>
      </div>
      <DataTable
        label="Rules"
        {...table.table}
        marks={table.marks}
        onKey={onKey}
        saveAs="rules"
        keysHelp="Arrows move, Space marks; Enter opens the sentence, o switches on or off, Delete removes."
        empty={view && <p>No rule yet. Begin from a ready one, or from an empty sentence above.</p>}
      />
      {table.line && (
        <InHand
          title={some.length > 1 ? `${formatCount(some.length)} marked` : table.line.name}
          actions={
            <div className="flex flex-wrap items-center gap-1.5">
              <Button tone="main" onClick={() => onOpen(table.line!.id)}>
                Open <Key>↵</Key>
              </Button>
              <Button onClick={() => void turn()}>
                {some[0]?.state === 'on' ? 'Switch off' : 'Switch on'} <Key>o</Key>
              </Button>
              <Button onClick={() => void remove()}>
                Remove <Key>Del</Key>
              </Button>
            </div>
          }
        >
          {some.length === 1 && <One line={table.line} saying={saying} />}
        </InHand>
      )}
    </>
  );
}

function One({ line, saying }: { line: RuleLine; saying: Saying }) {
  const { rule, version, by, at, why, waitsFor, trouble } = line;
  return (
    <div className="mt-1 flex flex-col gap-1.5 text-table">
      <p>{sayRule(rule, saying)}.</p>
      {waitsFor !== null && <p className="text-rust">It waits: it names {waitsFor}.</p>}
      {trouble !== null && <p className="text-rust">{trouble}</p>}
      <p className="text-soft">
        Version {version}, by {by}, {formatMoment(at)}
        {why && `: ${why}`}.
      </p>
    </div>
  );
}

const STATE_NAMES: Record<RuleState, string> = {
  on: 'on',
  off: 'off',
  draft: 'draft',
  ready: 'ready',
  removed: 'removed',
};

function sayState({ state, waitsFor, trouble, rule }: RuleLine): string {
  if (waitsFor !== null || (state === 'on' && trouble !== null)) return 'waits';
  if (state === 'off' && trouble !== null) return 'stopped itself';
  return state === 'on' && rule.how.is === 'by itself' ? 'by itself' : STATE_NAMES[state];
}

function useRuleColumns(saying: Saying): readonly Column<RuleLine>[] {
  return useMemo(
    () => [
      {
        ...{ id: 'name', name: 'rule', px: 150, share: 1, isText: true, isSortable: true },
        value: ({ name }) => name,
        cell: ({ name }) => <b>{name}</b>,
      },
      {
        ...{ id: 'says', name: 'says', px: 180, share: 2.4, isText: true, yields: true },
        value: ({ rule }) => sayRule(rule, saying),
        cell: ({ rule }) => <span className="text-soft">{sayRule(rule, saying)}</span>,
      },
      {
        ...{ id: 'set', name: 'set', px: 80, isText: true, isSortable: true, yields: true },
        value: ({ set }) => set ?? '',
        cell: ({ set }) => <span className="text-soft">{set ?? '–'}</span>,
      },
      {
        ...{ id: 'state', name: 'state', px: 84, isText: true, isSortable: true },
        value: sayState,
        cell: (line) => (
          <span
            className={
              (line.waitsFor ?? line.trouble) ? 'text-rust' : line.state === 'on' ? 'text-pine' : 'text-soft'
            }
          >
            {sayState(line)}
          </span>
        ),
      },
      {
        ...{ id: 'looked', name: 'looked', fullName: 'last day it looked at', px: 72, isSortable: true },
        value: ({ looked }) => looked,
        cell: ({ looked }) => (looked === null ? '–' : formatDay(looked)),
      },
      {
        ...{ id: 'open', name: 'findings', fullName: 'findings that wait', px: 72, isSortable: true },
        isDownFirst: true,
        value: ({ open }) => open,
        cell: ({ open }) => formatCount(open),
      },
    ],
    [saying],
  );
}
