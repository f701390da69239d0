'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import type { EntriesView } from '@/contracts/list-entries';
import type { ListsView } from '@/contracts/lists';
import type { ListEdit } from '@/contracts/list-edits';
import { MATCH_TYPES, type NegativeText, counted } from '@/core';
import { InHand } from '@/screens/frame/in-hand';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { TextField, useValidForm } from '@/ui/form';
import { formatConversions, formatDay } from '@/ui/format';
import { namedOptions, optionsOf, Select } from '@/ui/select';
import { EditInHand } from '../edit/edit-in-hand';
import { ListNameSchema } from '../edit/new-list';
import { Reaches } from '../edit/plan-view';
import type { Row } from './pick-entries';
import { useRoutes } from '@/screens/frame/data/routes';

type Props = {
  view: ListsView;
  entries: EntriesView;
  /** those that are marked, or the one in hand */
  rows: readonly Row[];
  isMarked: boolean;
  onDone: () => void;
};

/** Entries of a list, and what can be done with them. */
export function EntriesInHand({ view, entries: { list, reaches }, rows, isMarked, onDone }: Props) {
  const [edit, setEdit] = useState<ListEdit | null>(null);
  const [only] = rows;
  const staying = rows.filter((row) => row.drafted !== 'removed');
  const title = isMarked
    ? `${counted(rows.length, 'entry', 'entries')} of ${list.name}`
    : (only?.text ?? list.name);
  if (edit) {
    return (
      <InHand title={title}>
        <EditInHand
          edit={edit}
          onDone={() => {
            setEdit(null);
            onDone();
          }}
          onLeave={() => setEdit(null)}
        />
      </InHand>
    );
  }
  const negatives: NegativeText[] = staying.flatMap(({ text, match }) => (match ? [{ text, match }] : []));
  return (
    <InHand title={title}>
      <div className="mt-1 flex flex-col gap-1 text-table" data-testid="entries-in-hand">
        {!only && <p className="text-soft">Empty. Paste lines, or put words into it from Sift.</p>}
        {only && !isMarked && <About row={only} />}
        <Reaches reaches={reaches} />
        {negatives.length > 0 && <Actions {...{ view, list, negatives }} onEdit={setEdit} />}
        {list.holds === 'placements' && staying.length > 0 && (
          <Button
            className="self-start"
            onClick={() =>
              setEdit({ do: 'remove placements', list: list.id, addresses: staying.map((row) => row.text) })
            }
          >
            Take out
          </Button>
        )}
        {only?.match && !isMarked && (only.health?.missing ?? 0) > 0 && (
          <Variants listId={list.id} negative={{ text: only.text, match: only.match }} />
        )}
      </div>
    </InHand>
  );
}

function About({ row: { match, since, by, from, hurts, health, drafted } }: { row: Row }) {
  const formatMoney = useMoney();
  const stopped = health?.stopped;
  return (
    <>
      <p className="text-soft">
        {match ?? 'placement'}
        {since && `, since ${formatDay(since.slice(0, 10), true)}`}
        {by && ` by ${by}`}
        {from && ` from the term “${from}”`}
        {drafted === 'added' && ', in the tray'}
        {drafted === 'said to be done' && ', said to be done'}
        {drafted === 'removed' && ', goes with the tray'}.
      </p>
      {stopped && stopped.known > 0 && (
        <p>
          Stopped {counted(stopped.terms, 'term')}: {counted(stopped.clicks, 'click')},{' '}
          {formatMoney(stopped.costMicros)} saved, estimated.
          {stopped.returningTerms > 0 && (
            <span className="text-rust">
              {' '}
              {counted(stopped.returningTerms, 'term')} had converted:{' '}
              {formatConversions(stopped.conversions)} conversions.
            </span>
          )}
        </p>
      )}
      {stopped && stopped.known === 0 && stopped.unknown > 0 && (
        <p className="text-soft">
          It has acted since before the first day of data, so what it stopped is not known.
        </p>
      )}
      {hurts > 0 && (
        <p className="text-rust">
          Shuts out or narrows {counted(hurts, 'live keyword')} where the list hangs.
        </p>
      )}
      {health?.coveredBy && <p className="text-timber">Needless: {health.coveredBy} stops the same.</p>}
    </>
  );
}

type ActionsProps = {
  view: ListsView;
  list: EntriesView['list'];
  negatives: readonly NegativeText[];
  onEdit: (edit: ListEdit) => void;
};

function Actions({ view, list, negatives, onEdit }: ActionsProps) {
  const [makes, setMakes] = useState<{ keep: boolean } | null>(null);
  const entries = [...negatives];
  const others = view.lists.filter((l) => l.id !== list.id && l.holds === 'words');
  const send = (value: string, keep: boolean) => {
    if (value === 'new') setMakes({ keep });
    else onEdit({ do: 'move', list: list.id, into: { id: value }, entries, keep });
  };
  const targets = [{ key: 'new', says: 'a new list…' }, ...namedOptions(others)];
  return (
    <div className="mt-1 flex flex-col items-start gap-1.5">
      <p className="flex items-center gap-1.5">
        Make {negatives.length === 1 ? 'it' : 'them'}
        <Select
          label={negatives.length === 1 ? 'Make it' : 'Make them'}
          placeholder="another match type"
          options={optionsOf(MATCH_TYPES)}
          value={null}
          onChange={(match) => onEdit({ do: 'match', list: list.id, entries, match })}
        />
      </p>
      {([false, true] as const).map((keep) => (
        <p key={String(keep)} className="flex items-center gap-1.5">
          {keep ? 'Copy to' : 'Move to'}
          <Select
            label={keep ? 'Copy to' : 'Move to'}
            placeholder="choose a list"
            options={targets}
            value={null}
            onChange={(to) => send(to, keep)}
          />
        </p>
      ))}
      {makes && (
        <IntoNewList
          onName={(make) => onEdit({ do: 'move', list: list.id, into: { make }, entries, keep: makes.keep })}
        />
      )}
      <Button onClick={() => onEdit({ do: 'remove', list: list.id, entries })}>Let through again</Button>
    </div>
  );
}

const IntoSchema = v.object({ name: ListNameSchema });

/** The name of the list that entries are moved or copied into. */
function IntoNewList({ onName }: { onName: (name: string) => void }) {
  const { register, handleSubmit, formState } = useValidForm(IntoSchema, { name: '' });
  return (
    <form
      noValidate
      className="flex items-start gap-1.5"
      onSubmit={(event) => void handleSubmit(({ name }) => onName(name.trim()))(event)}
    >
      <TextField
        autoFocus
        isLabelHidden
        label="Name of the new list"
        placeholder="Name of the new list"
        maxLength={120}
        fault={formState.errors.name?.message}
        {...register('name')}
      />
      <Button type="submit" className="mt-0.5">
        See it
      </Button>
    </form>
  );
}

/** Forms of an entry that still pass where the list hangs. */
function Variants({ listId, negative }: { listId: string; negative: NegativeText }) {
  const formatMoney = useMoney();
  const { query } = useRoutes();
  const { draft } = useTrayActions();
  const { text, match } = negative;
  const { data } = useQuery(query('GET sift/variants', { query: { text, match, kind: 'list', id: listId } }));
  if (!data || data.offers.length === 0)
    return (
      <p className="text-soft">Its other forms are stopped here by other entries, or pass elsewhere only.</p>
    );
  const take = (texts: readonly string[]) =>
    draft(
      texts.map((one) => ({
        change: { kind: 'add negative', text: one, match, place: { kind: 'list', id: listId } },
        why: `a form of ${text}`,
      })),
    );
  return (
    <div className="mt-1 border-l-[3px] border-timber bg-timber/10 px-2.5 py-1.5">
      <p>These forms still pass here:</p>
      <ul>
        {data.offers.map((offer) => (
          <li key={offer.text} className="flex items-center gap-1.5">
            <Button tone="quiet" onClick={() => void take([offer.text])}>
              {offer.text}
            </Button>
            <span className="text-soft">{offer.how}</span>
            <span className="ml-auto text-soft">
              {counted(offer.weight.terms, 'term')}, {formatMoney(offer.weight.costMicros ?? 0)}
            </span>
          </li>
        ))}
      </ul>
      <Button onClick={() => void take(data.offers.map((o) => o.text))}>Stop all {data.offers.length}</Button>
    </div>
  );
}
