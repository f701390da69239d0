'use client';

import { counted } from '@/core';
import { GroupNameSchema, type Group } from '@/contracts/groups';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { InlineField, useValidForm } from '@/ui/form';
import { formatCount } from '@/ui/format';
import { Select } from '@/ui/select';
import { object } from 'valibot';
import { HeldBack } from '../hand/held-back';
import { PlaceOfNegatives } from '../hand/place-of-negatives';
import type { RemainderChoice } from '../hand/use-remainder';
import { WeighedNegatives } from '../hand/weighed-negatives';
import { keyOfGroup, keyOfRow, type GroupRow } from './group-rows';
import type { Groups } from './use-groups';

/** Of the fields that keys lead to. */
export const FIELD_IDS = { name: 'group-name', into: 'group-into', apart: 'group-apart' };

type Props = { groups: Groups; stop: RemainderChoice; stops: boolean; onStops: (stops: boolean) => void };

/** The group or the ideas in hand, and what can be done with them. */
export function GroupInHand({ groups, stop, stops, onStops }: Props) {
  const { row } = groups;
  const ideas = groups.chosen();
  if (!row) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  if (row.kind === 'group') {
    return (
      <InHand
        title={row.group.name}
        actions={
          stops ? (
            <StopActions {...{ stop, onStops }} />
          ) : (
            <GroupActions {...{ groups, group: row.group, onStops }} />
          )
        }
      >
        <OfGroup key={keyOfRow(row)} group={row.group} groups={groups} />
        {stops && (
          <section aria-label="Turned into a negative" className="mt-2 border-t border-line pt-1">
            {stop.weighed && <WeighedNegatives remainder={stop} weighed={stop.weighed} />}
            <PlaceOfNegatives place={stop.place} onChange={stop.setPlace} />
            <HeldBack remainder={stop} />
          </section>
        )}
      </InHand>
    );
  }
  const title = ideas.length > 1 ? counted(ideas.length, 'idea') : nameOf(row);
  return (
    <InHand title={title} actions={ideas.length > 0 && <IdeaActions groups={groups} />}>
      {row.kind === 'left' && ideas.length === 0 ? (
        <p className="mt-1 text-table text-soft">
          {counted(row.count, 'idea')} share no run of words with enough others. Open them, mark some, and
          part them off; or group finer.
        </p>
      ) : (
        <>
          {row.kind === 'idea' && (
            <p className="mt-1 text-table text-soft">
              {row.group ? `in ${row.group.name}` : 'in no group'}
              {row.idea.volume !== null && `, ${formatCount(row.idea.volume)} searches a month`}
              {row.idea.keys && row.idea.keys.length > 1 && `; folds ${row.idea.keys.join(', ')}`}
            </p>
          )}
          <Into groups={groups} label="Move to" onInto={(into) => void groups.put(ideas, into)} />
          <Named
            key={ideas[0]?.text}
            id={FIELD_IDS.apart}
            label="Name of a new group"
            does="Part off"
            keyOf="p"
            name={ideas[0]?.text ?? ''}
            onNamed={(name) => void groups.put(ideas, name)}
          />
        </>
      )}
    </InHand>
  );
}

function nameOf(row: GroupRow): string {
  if (row.kind === 'idea') return row.idea.text;
  return row.kind === 'left' ? 'Left over' : row.group.name;
}

function OfGroup({ group, groups }: { group: Group; groups: Groups }) {
  const money = useMoney();
  return (
    <>
      <p className="mt-1 text-table text-soft">
        {counted(group.ideas.length, 'idea')}
        {group.volume !== null && `, ${formatCount(group.volume)} searches a month`}
        {group.openingBidMicros !== null && `, bids up to ${money(group.openingBidMicros)}`}.
        {group.isProposed && ' Proposed: taken, it stays as it is while the others are grouped anew.'}
      </p>
      <Named
        id={FIELD_IDS.name}
        label="Name of the group"
        does="Name it"
        keyOf="n"
        name={group.name}
        onNamed={(name) => void groups.rename(group, name)}
      />
      <Into
        groups={groups}
        without={keyOfGroup(group)}
        label="Merge into"
        onInto={(into) => void (into ? groups.merge(group, into) : groups.drop(group))}
      />
    </>
  );
}

type IntoProps = { groups: Groups; label: string; without?: string; onInto: (into: Group | null) => void };
const NOWHERE = '-';

function Into({ groups, label, without, onInto }: IntoProps) {
  const others = groups.view?.groups.filter((group) => keyOfGroup(group) !== without) ?? [];
  return (
    <p className="mt-1.5 text-table">
      {label}{' '}
      <Select
        look="word"
        id={FIELD_IDS.into}
        label={label}
        value={null}
        placeholder="choose a group"
        options={[
          ...others.map((group) => ({ key: keyOfGroup(group), says: group.name })),
          { key: NOWHERE, says: 'no group: left over' },
        ]}
        onChange={(key) => onInto(key === NOWHERE ? null : (groups.groupOf(key) ?? null))}
      />{' '}
      <Key>m</Key>
    </p>
  );
}

type NamedProps = {
  id: string;
  label: string;
  does: string;
  keyOf: string;
  name: string;
  onNamed: (name: string) => void;
};
const NamedSchema = object({ name: GroupNameSchema });

function Named({ id, label, does, keyOf, name, onNamed }: NamedProps) {
  const form = useValidForm(NamedSchema, { name });
  const fault = form.formState.errors.name?.message;
  return (
    <form
      aria-label={label}
      className="mt-1.5 flex flex-wrap items-baseline gap-1.5 text-table"
      onSubmit={(event) => void form.handleSubmit((given) => onNamed(given.name))(event)}
    >
      <InlineField label={label} id={id} className="w-36" {...form.register('name')} fault={fault} />
      <Button type="submit">
        {does} <Key>{keyOf}</Key>
      </Button>
      {fault && <span className="text-small text-rust">{fault}</span>}
    </form>
  );
}

function StopActions({ stop, onStops }: Pick<Props, 'stop' | 'onStops'>) {
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" onClick={() => void stop.put().then((isIn) => onStops(!isIn))}>
        Put in the tray <Key>s</Key>
      </Button>
      <Button onClick={() => onStops(false)}>Back to the group</Button>
    </div>
  );
}

type ActionsProps = { groups: Groups; group: Group; onStops: (stops: boolean) => void };

function GroupActions({ groups, group, onStops }: ActionsProps) {
  return (
    <div className="flex flex-wrap gap-1.5">
      {group.isProposed && (
        <Button tone="main" onClick={() => void groups.take([group])}>
          Take it <Key>↵</Key>
        </Button>
      )}
      <Button onClick={() => onStops(true)}>
        Stop it <Key>s</Key>
      </Button>
      <Button onClick={() => void groups.eachItsOwn(group)}>
        Each its own <Key>w</Key>
      </Button>
      {!group.isProposed && (
        <Button onClick={() => void groups.drop(group)}>
          Drop <Key>x</Key>
        </Button>
      )}
    </div>
  );
}

function IdeaActions({ groups }: { groups: Groups }) {
  const ideas = groups.chosen();
  return (
    <Button onClick={() => void groups.put(ideas, null)}>
      Take out of its group <Key>x</Key>
    </Button>
  );
}
