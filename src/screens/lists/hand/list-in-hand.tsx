'use client';

import { useMoney } from '@/screens/frame/money';
import { useState } from 'react';
import * as v from 'valibot';
import type { ListHealth, ListLine, ListsView } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { InHand } from '@/screens/frame/in-hand';
import { useRefresh } from '@/screens/frame/data/refresh';
import { sayFailure, useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { TextField, useValidForm } from '@/ui/form';
import { formatConversions } from '@/ui/format';
import { namedOptions, Select } from '@/ui/select';
import { EditInHand } from '../edit/edit-in-hand';
import { ListNameSchema } from '../edit/new-list';
import type { ListsUrl } from '../lists-url';
import { NotesAbout } from '@/screens/notes/notes-about';
import { Compare } from './compare';
import { CopyToAccount } from './copy-to-account';
import { History } from './history';
import { RuleForm } from './hanging/rule-form';
import { Split } from './split';
import { hungAfterTray } from './hanging/hangings';
import { useHang } from './hanging/use-hang';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted, listed } from '@/core';

type Props = {
  view: ListsView;
  list: ListLine;
  health: ListHealth | undefined;
  onChange: (change: Partial<ListsUrl>) => void;
  onPaste: () => void;
};

type Doing = 'rule' | 'compare' | 'merge' | 'split' | 'history' | 'rename' | 'copy' | ListEdit | null;

/** A list, and all that can be done with it as a whole. */
export function ListInHand({ view, list, health, onChange, onPaste }: Props) {
  const [doing, setDoing] = useState<Doing>(null);
  const { address } = useRoutes();
  const hang = useHang();
  const done = () => setDoing(null);
  const others = view.lists.filter((l) => l.id !== list.id && l.holds === list.holds);
  const isWords = list.holds === 'words';
  const onAccount = hungAfterTray(view, list).has(null);
  if (doing !== null && typeof doing === 'object') {
    return (
      <InHand title={list.name}>
        <EditInHand edit={doing} onDone={done} onLeave={done} />
      </InHand>
    );
  }
  if (doing !== null) {
    return (
      <InHand title={list.name}>
        {doing === 'rule' && <RuleForm view={view} list={list} onDone={done} />}
        {doing === 'compare' && <Compare list={list} others={others} onDone={done} />}
        {doing === 'split' && <Split list={list} onEdit={setDoing} onDone={done} />}
        {doing === 'history' && <History list={list} onEdit={setDoing} onDone={done} />}
        {doing === 'rename' && <Rename list={list} onDone={done} />}
        {doing === 'copy' && <CopyToAccount list={list} onDone={done} />}
        {doing === 'merge' && (
          <PickList
            label="Merge into it, and remove"
            lists={others}
            onPick={(from) => setDoing({ do: 'merge', list: list.id, from })}
            onLeave={done}
          />
        )}
      </InHand>
    );
  }
  const fileAs = (as: 'csv' | 'xlsx' | 'json') =>
    address('GET lists/[list]/file', { params: { list: list.id }, query: { as } });
  return (
    <InHand
      title={list.name}
      actions={
        <div className="flex flex-wrap gap-2">
          <Button tone="main" hotkey="↵" onClick={() => onChange({ show: 'entries', list: list.id })}>
            Open its entries
          </Button>
          <Button onClick={() => setDoing('rule')}>Hang by rule</Button>
        </div>
      }
    >
      <div className="mt-1 flex flex-col gap-1 text-table" data-testid="list-in-hand">
        <Facts view={view} list={list} health={health} />
        <Rules view={view} list={list} hang={hang} />
        {!list.isNew && <NotesAbout about={{ kind: 'list', about: list.id }} />}
        <div className="mt-1 flex flex-wrap gap-x-3 gap-y-0.5">
          <Button tone="quiet" onClick={onPaste}>
            Paste lines
          </Button>
          {!list.isNew && (
            <Button tone="quiet" onClick={() => setDoing('rename')}>
              Rename
            </Button>
          )}
          {isWords && list.entries > 1 && (
            <Button tone="quiet" onClick={() => setDoing('split')}>
              Split by theme
            </Button>
          )}
          {isWords && others.length > 0 && (
            <Button tone="quiet" onClick={() => setDoing('compare')}>
              Compare
            </Button>
          )}
          {others.length > 0 && (
            <Button tone="quiet" onClick={() => setDoing('merge')}>
              Merge
            </Button>
          )}
          {isWords && (health?.redundant ?? 0) > 0 && (
            <Button tone="quiet" onClick={() => setDoing({ do: 'drop needless', list: list.id })}>
              Drop what is needless
            </Button>
          )}
          <Button
            tone="quiet"
            onClick={() => void hang.turn([{ listId: list.id, campaignId: null }], !onAccount)}
          >
            {onAccount ? 'Take down from the account' : 'Hang on the whole account'}
          </Button>
          {!list.isNew && (
            <Button tone="quiet" onClick={() => setDoing('history')}>
              History
            </Button>
          )}
          <Button tone="quiet" onClick={() => setDoing('copy')}>
            Copy to another account
          </Button>
          {!list.isNew && (
            <Button tone="quiet" onClick={() => setDoing({ do: 'remove list', list: list.id })}>
              Remove
            </Button>
          )}
        </div>
        <p className="text-soft">
          Save as{' '}
          {(['csv', 'xlsx', 'json'] as const).map((kind) => (
            <a key={kind} href={fileAs(kind)} download className="mr-2 text-pine hover:underline">
              {kind.toUpperCase()}
            </a>
          ))}
        </p>
      </div>
    </InHand>
  );
}

function Facts({ view, list, health }: Pick<Props, 'view' | 'list' | 'health'>) {
  const formatMoney = useMoney();
  const hung = hungAfterTray(view, list);
  const names = view.campaigns.filter((c) => hung.has(c.id)).map((c) => c.name);
  const stopped = health?.stopped;
  return (
    <>
      <p>
        {counted(
          list.entries,
          list.holds === 'words' ? 'entry' : 'placement',
          list.holds === 'words' ? 'entries' : 'placements',
        )}
        , room for {counted(list.room, 'more', 'more')}.{' '}
        {hung.has(null)
          ? 'Hangs on the whole account.'
          : names.length === 0
            ? 'Hangs nowhere, so it stops nothing.'
            : `Hangs on ${counted(names.length, 'campaign')}: ${listed(names.slice(0, 5), names.length)}.`}
      </p>
      {stopped && stopped.known > 0 && (
        <p>
          Stopped {counted(stopped.terms, 'term')}: {counted(stopped.clicks, 'click')},{' '}
          {formatMoney(stopped.costMicros)} saved in {view.window.days} days, estimated.
          {stopped.returningTerms > 0 && (
            <span className="text-rust">
              {' '}
              {counted(stopped.returningTerms, 'term')} among them had converted:{' '}
              {formatConversions(stopped.conversions)} conversions.
            </span>
          )}
        </p>
      )}
    </>
  );
}

function Rules({ view, list, hang }: { view: ListsView; list: ListLine; hang: ReturnType<typeof useHang> }) {
  const { call } = useRoutes();
  const refresh = useRefresh();
  const drop = async (id: number) => {
    try {
      await call('DELETE lists/rules/[rule]', { params: { rule: id } });
    } catch (error) {
      sayFailure(error);
    }
    await refresh();
  };
  const wanted = list.wanted.map((c) => ({ listId: list.id, campaignId: view.campaigns[c]!.id }));
  return (
    <>
      {list.rules.map(({ id, said, by }) => (
        <p key={id} className="text-soft">
          Rule of {by}: it hangs on {said}.{' '}
          <Button tone="quiet" onClick={() => void drop(id)}>
            Drop the rule
          </Button>
        </p>
      ))}
      {wanted.length > 0 && (
        <p>
          By rule it wants to hang on {listed(list.wanted.map((c) => view.campaigns[c]!.name))}.{' '}
          <Button tone="quiet" onClick={() => void hang.turn(wanted, true)}>
            Hang it there
          </Button>
        </p>
      )}
    </>
  );
}

function Rename({ list, onDone }: { list: ListLine; onDone: () => void }) {
  const { draft } = useTrayActions();
  const { register, handleSubmit, formState } = useValidForm(RenameSchema, { name: list.name });
  return (
    <form
      noValidate
      className="mt-1 flex flex-col gap-2 text-table"
      onSubmit={(event) =>
        void handleSubmit(({ name }) =>
          draft([
            { change: { kind: 'rename list', listId: list.id, name: name.trim(), was: list.name } },
          ]).then(onDone),
        )(event)
      }
    >
      <TextField
        autoFocus
        label="New name"
        maxLength={120}
        fault={formState.errors.name?.message}
        {...register('name')}
      />
      <div className="flex gap-2">
        <Button tone="main" type="submit" disabled={!formState.isDirty}>
          Put in the tray
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </div>
    </form>
  );
}

const RenameSchema = v.object({ name: ListNameSchema });

type PickListProps = {
  label: string;
  lists: readonly ListLine[];
  onPick: (id: string) => void;
  onLeave: () => void;
};

function PickList({ label, lists, onPick, onLeave }: PickListProps) {
  return (
    <div className="mt-1 flex flex-col items-start gap-2 text-table">
      <p>
        {label}{' '}
        <Select
          label={label}
          placeholder="choose a list"
          options={namedOptions(lists)}
          value={null}
          onChange={onPick}
        />
      </p>
      <Button onClick={onLeave}>Leave it</Button>
    </div>
  );
}
