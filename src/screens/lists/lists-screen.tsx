'use client';

import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import type { ListsView } from '@/contracts/lists';
import { newListId, counted } from '@/core';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { Fault, InlineField, SelectField, useValidForm } from '@/ui/form';
import { formatCount } from '@/ui/format';
import { TabbedView } from '@/ui/tabs';
import { Coverage } from './coverage/coverage';
import { PasteDialog } from './edit/paste-dialog';
import { HOLDS, NEW_LIST, NewListSchema } from './edit/new-list';
import { Entries } from './entries/entries';
import { useListsUrl, type ListsTab } from './lists-url';
import { Overview } from './overview/overview';
import { AccountWide } from './panels/account-wide';
import { CouldBe, useCouldBe } from './panels/could-be';
import { Elsewhere } from './panels/elsewhere';
import { useRoutes } from '@/screens/frame/data/routes';
import { EmptyState, ErrorText } from '@/ui/said';

/** Shared lists: what they hold, where they hang, what they stopped, and what is wrong with them. */
export function ListsScreen() {
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET lists'),
  });
  const [url, change] = useListsUrl();
  const [pastes, setPastes] = useState<{ into: string | null } | null>(null);
  const shown = url.list ?? data?.lists[0]?.id ?? null;
  const paste = () => setPastes({ into: url.show === 'entries' ? shown : null });
  const panel = { view: data!, url, onChange: change };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex items-center gap-4 border-b border-line bg-paper px-4 py-2">
        <h1 className="font-title text-title font-bold">Lists</h1>
        {data && (
          <p className="text-soft">
            <b className="text-ink">{counted(data.lists.length, 'list')}</b> across{' '}
            {counted(data.campaigns.length, 'campaign')}
          </p>
        )}
        {data && url.show === 'overview' && (
          <input
            aria-label="Lists with this in their name"
            placeholder="Find a list"
            className="min-h-6 w-[120px] border-b border-dashed border-soft bg-transparent placeholder:text-soft"
            value={url.find}
            onChange={(e) => change({ find: e.target.value })}
          />
        )}
        <span className="ml-auto flex gap-2">
          <NewList />
          <Button onClick={paste}>Paste lines</Button>
        </span>
      </header>
      <Tabs view={data} show={url.show} onShow={(show) => change({ show })}>
        <ErrorText error={error} isWhole />
        {!data && !error && <EmptyState>Reading the lists…</EmptyState>}
        {data && data.lists.length === 0 && url.show === 'overview' && (
          <EmptyState>
            No list yet. Make one or paste lines into a new one, put words into it from Sift, and hang it on
            campaigns.
          </EmptyState>
        )}
        {data && url.show === 'overview' && (
          <Overview {...panel} onPaste={() => setPastes({ into: shown })} />
        )}
        {data && url.show === 'coverage' && <Coverage {...panel} />}
        {data && url.show === 'entries' && <Entries {...panel} />}
        {data && url.show === 'could' && <CouldBe />}
        {data && url.show === 'account' && <AccountWide />}
        {data && url.show === 'elsewhere' && <Elsewhere view={data} />}
      </Tabs>
      {data && pastes && (
        <PasteDialog lists={data.lists} into={pastes.into} onClose={() => setPastes(null)} />
      )}
    </div>
  );
}

type TabsProps = {
  view: ListsView | undefined;
  show: ListsTab;
  onShow: (tab: ListsTab) => void;
  children: ReactNode;
};

function Tabs({ view, show, onShow, children }: TabsProps) {
  const could = useCouldBe(view !== undefined); // after the lists themselves
  const changedElsewhere = view ? view.waiting.length + view.outside.length : 0;
  const counts: Partial<Record<ListsTab, string>> = view
    ? {
        could: could.data ? formatCount(could.data.sets.length) : '',
        account: `${formatCount(view.accountWide.used)} of ${formatCount(view.accountWide.most)}`,
        elsewhere: formatCount(changedElsewhere),
      }
    : {};
  return (
    <TabbedView
      label="Show"
      className="px-4"
      tabs={TABS_IN_WORDS.map(([value, name]) => ({
        ...{ value, name, count: counts[value], isHot: value === 'elsewhere' && changedElsewhere > 0 },
      }))}
      value={show}
      onChange={onShow}
    >
      {children}
    </TabbedView>
  );
}

const TABS_IN_WORDS: [ListsTab, string][] = [
  ['overview', 'Overview'],
  ['coverage', 'Coverage'],
  ['entries', 'Entries'],
  ['could', 'Could be a list'],
  ['account', 'Account-wide'],
  ['elsewhere', 'Changed elsewhere'],
];

function NewList() {
  const { draft } = useTrayActions();
  const [isOpen, setOpen] = useState(false);
  const { register, control, handleSubmit, formState, reset } = useValidForm(NewListSchema, NEW_LIST);
  const leave = () => {
    setOpen(false);
    reset();
  };
  if (!isOpen) return <Button onClick={() => setOpen(true)}>New list</Button>;
  const fault = formState.errors.name?.message;
  return (
    <form
      noValidate
      className="flex items-center gap-2"
      onSubmit={(event) =>
        void handleSubmit(({ name, holds }) =>
          draft([
            {
              change: {
                ...{ kind: 'make list', listId: newListId(crypto.randomUUID()) },
                ...{ name: name.trim(), holds },
              },
            },
          ]).then((outcomes) => outcomes.every(({ outcome }) => outcome !== 'refused') && leave()),
        )(event)
      }
      onKeyDown={(e) => e.key === 'Escape' && !e.defaultPrevented && leave()}
    >
      {fault && <Fault>{fault}</Fault>}
      <InlineField
        autoFocus
        label="Name of the new list"
        className="w-[150px]"
        placeholder="Name of the list"
        maxLength={120}
        fault={fault}
        {...register('name')}
      />
      <SelectField label="What it holds" control={control} name="holds" options={HOLDS} />
      <Button tone="main" type="submit">
        Make it
      </Button>
      <Button onClick={leave}>Leave it</Button>
    </form>
  );
}
