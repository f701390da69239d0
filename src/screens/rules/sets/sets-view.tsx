'use client';

import { useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { listed } from '@/core';
import type { RuleSet, RulesView } from '@/contracts/rules';
import { useMay } from '@/screens/frame/account-context';
import { useLineTable } from '@/screens/frame/line-table';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { sayWhere } from '../say-rule';
import { useSaying } from '../use-saying';
import { SetInHand } from './set-in-hand';
import { useSets } from './use-sets';

const keyOf = ({ name }: RuleSet) => name;
/** So many rules of a set are named in its row. */
const MOST_NAMED = 4;

/** Sets of rules: of those that find the same term, the first of a set wins; one set is swapped for another with one press. */
export function SetsView({ view }: { view: RulesView }) {
  const columns = useSetColumns(view);
  const table = useLineTable('rule-sets', columns, view.sets, {
    ...{ first: { by: 'name', isDown: false }, over: 'sets', keyOf },
  });
  const actions = useSets(view);
  const { may } = useMay('prepare');
  // The set that comes in hand once it is there, until another is taken; with the focus on the field for its name or not.
  const [wanted, setWanted] = useState<{ name: string; isToBeNamed: boolean }>();
  const isToBeNamed = wanted?.isToBeNamed ?? false;
  const { onCursor, layout } = table.table;
  const at = wanted ? layout.rows.findIndex((row) => keyOf(row) === wanted.name) : -1;
  useEffect(() => {
    if (at >= 0) onCursor(at);
  }, [at, onCursor]);
  const { line } = table;
  function onKey(event: KeyboardEvent): boolean {
    if (!line || !may) return false;
    if (event.key === 'Enter') {
      event.preventDefault();
      document.getElementById(NAME_FIELD)?.focus();
    } else if (event.key === 'Delete') void actions.remove(line);
    else return false;
    return true;
  }
  async function make() {
    const name = actions.freeName();
    setWanted({ name, isToBeNamed: true });
    if (!(await actions.make(name))) setWanted(undefined);
  }
  return (
    <>
      <div className="flex items-center gap-2 border-b border-line px-3 py-1 text-table text-soft">
        Of the rules of a set that find the same term, the first wins
        <span className="ml-auto">
          <Button disabled={!may} onClick={() => void make()}>
            New set
          </Button>
        </span>
      </div>
      <DataTable
        label="Sets of rules"
        {...table.table}
        onCursor={(row) => {
          setWanted(undefined);
          onCursor(row);
        }}
        onKey={onKey}
        saveAs="rule-sets"
        keysHelp="Arrows move; Enter goes to the name of the set in hand, Delete removes it and leaves its rules."
        empty={<p>No set yet. Rules that are in none have no order: where two differ, somebody decides.</p>}
      />
      {line && (
        <SetInHand
          key={line.name}
          set={line}
          view={view}
          actions={actions}
          fieldId={NAME_FIELD}
          isToBeNamed={isToBeNamed && wanted?.name === line.name}
          onInHand={() => setWanted(undefined)}
          onRenamed={(name) => setWanted({ name, isToBeNamed: false })}
        />
      )}
    </>
  );
}

const NAME_FIELD = 'name-of-the-set';

function useSetColumns(view: RulesView): readonly Column<RuleSet>[] {
  const saying = useSaying(view);
  return useMemo(() => {
    const byId = new Map(view.rules.map((rule) => [rule.id, rule]));
    const namesOf = ({ rules }: RuleSet) =>
      listed(
        rules.slice(0, MOST_NAMED).map((id) => byId.get(id)?.name ?? ''),
        rules.length,
      );
    const onOf = ({ rules }: RuleSet) => rules.filter((id) => byId.get(id)?.state === 'on').length;
    return [
      {
        ...{ id: 'name', name: 'set', px: 130, share: 1, isText: true, isSortable: true },
        value: keyOf,
        cell: ({ name }) => <b>{name}</b>,
      },
      {
        ...{ id: 'where', name: 'where', px: 120, share: 1, isText: true, yields: true },
        value: ({ where }) => (where === null ? 'everywhere' : sayWhere(where, saying)),
        cell: ({ where }) => (
          <span className="text-soft">{where === null ? 'everywhere' : sayWhere(where, saying)}</span>
        ),
      },
      {
        ...{ id: 'rules', name: 'rules', fullName: 'rules in their order', px: 180, share: 2, isText: true },
        value: namesOf,
        cell: (set) => (set.rules.length === 0 ? <span className="text-soft">none yet</span> : namesOf(set)),
      },
      {
        ...{ id: 'on', name: 'on', fullName: 'rules that are switched on', px: 64, isSortable: true },
        isDownFirst: true,
        value: onOf,
        cell: (set) => `${formatCount(onOf(set))} of ${formatCount(set.rules.length)}`,
      },
    ];
  }, [view, saying]);
}
