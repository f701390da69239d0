'use client';

import { useState, type ReactNode } from 'react';
import { MATCH_TYPES, type MatchType } from '@/core';
import { Button, Key } from '@/ui/button';
import { Check } from '@/ui/check';
import { DialogFrame } from '@/ui/dialog-frame';
import { Explain } from '@/ui/explain';
import { Fault, TextField } from '@/ui/form';
import { MatchChip } from '@/ui/match-chip';
import { Picker } from '@/ui/picker';
import { RangeForm } from '@/ui/range-form';
import { optionsOf, Select } from '@/ui/select';
import { StateIcon, type StateIconKind } from '@/ui/state-icon';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { useLayout, type Sort } from '@/ui/table/use-layout';
import { TabbedView } from '@/ui/tabs';
import { ToggleGroup } from '@/ui/toggle-group';

/** Each part of `src/ui` in its states, light above and dark below. */
export function KitScreen() {
  return (
    <div className="flex flex-col">
      {(['light', 'dark'] as const).map((theme) => (
        <div key={theme} data-theme={theme} className="bg-sheet text-ink">
          <Parts theme={theme} />
        </div>
      ))}
    </div>
  );
}

function Parts({ theme }: { theme: string }) {
  const [tab, setTab] = useState<'one' | 'two'>('one');
  const [picked, setPicked] = useState('b');
  const [match, setMatch] = useState<MatchType>('phrase');
  const [length, setLength] = useState('30 days');
  const [isOpen, setOpen] = useState(false);
  return (
    <div className="grid grid-cols-2 gap-x-10 gap-y-4 p-6">
      <Part name="Buttons and keys">
        <Button tone="main" hotkey="↵">
          Put in the tray
        </Button>
        <Button>Keep</Button>
        <Button disabled>Not now</Button>
        <Button tone="quiet">History</Button>
        <Button tone="danger">Remove</Button>
        <Key>g</Key>
      </Part>
      <Part name="Fields and what is wrong with them">
        <TextField label="Name" fault={undefined} defaultValue="Larkfell" />
        <TextField label="Target" fault="A target is an amount, as in 18.50." defaultValue="lots" />
        <Check defaultChecked aria-label="On" /> <Check aria-label="Off" />
        <Fault>Nothing was changed. Try again.</Fault>
      </Part>
      <Part name="One of some, and days">
        <Select label={`Match, ${theme}`} options={MATCHES} value={match} onChange={setMatch} />{' '}
        <Select label="Not now" options={MATCHES} value="exact" onChange={setMatch} isDisabled /> with{' '}
        <Select label={`Word, ${theme}`} look="word" options={MATCHES} value={match} onChange={setMatch} /> or{' '}
        <Select label="Quiet" look="quiet" options={MATCHES} value={match} onChange={setMatch} />{' '}
        <Select label="None yet" placeholder="choose" options={MATCHES} value={null} onChange={setMatch} />
        <ToggleGroup
          label={`Lengths, ${theme}`}
          className="mt-2 gap-1"
          options={optionsOf(['7 days', '30 days', '90 days'])}
          value={length}
          onChange={setLength}
        />
        <RangeForm
          names={['First day', 'Last day']}
          range={{ from: '2026-10-20', to: '2026-11-18' }}
          takes="Take"
          onTake={() => undefined}
        />
      </Part>
      <Part name="Marks">
        {MARKS.map((kind) => (
          <span key={kind} className="mr-3">
            <StateIcon kind={kind} /> {kind}
          </span>
        ))}
        <MatchChip match="phrase" />
      </Part>
      <Part name="Choices and explanations">
        <Picker
          label={`Place, ${theme}`}
          trigger="list Other makers"
          groups={[{ name: 'likely', items: [{ key: 'a', says: 'list Other makers' }] }, OTHERS]}
          chosen={picked}
          onPick={setPicked}
        />{' '}
        <Explain about="sure" trigger="Why">
          How sure the figures are.
        </Explain>{' '}
        <Explain about="slips">What a stop lets through elsewhere.</Explain>{' '}
        <Button onClick={() => setOpen(true)}>Open a page</Button>
        {isOpen && (
          <DialogFrame title="A page" says="It closes by Esc." onClose={() => setOpen(false)}>
            <Button onClick={() => setOpen(false)}>Close</Button>
          </DialogFrame>
        )}
      </Part>
      <Part name="Tabs">
        <TabbedView
          label={`Tabs, ${theme}`}
          tabs={[
            { value: 'one', name: 'Remaining', count: '9,306' },
            { value: 'two', name: 'Changed elsewhere', count: '2', isHot: true },
          ]}
          value={tab}
          onChange={setTab}
        >
          <p className="py-2 text-soft">{tab === 'one' ? 'What remains.' : 'What others changed.'}</p>
        </TabbedView>
      </Part>
      <Part name="Type sizes">
        <p className="font-title text-figure font-bold">text-figure 26</p>
        <p className="font-title text-title font-bold">text-title 20</p>
        <p className="font-title text-hand font-bold">text-hand 17</p>
        <p className="text-base">text-base 14</p>
        <p className="text-table">text-table 13</p>
        <p className="text-small">text-small 12</p>
      </Part>
      <Part name="Data table">
        <Rows theme={theme} rows={ROWS} />
      </Part>
      <Part name="Data table without rows">
        <Rows theme={`${theme}-empty`} rows={[]} />
      </Part>
    </div>
  );
}

function Part({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-1 border-b border-line text-small text-soft">{name}</h2>
      <div className="text-table">{children}</div>
    </section>
  );
}

const MATCHES = optionsOf(MATCH_TYPES);
const MARKS: StateIconKind[] = ['stopped', 'hurting', 'drafted', 'open', 'kept', 'post', 'warned'];
const OTHERS = { name: 'others', items: [{ key: 'b', says: 'the whole account' }] };

type Row = { term: string; clicks: number };
const ROWS: Row[] = [
  { term: 'orchard vale varroa treatment strips price', clicks: 86 },
  { term: 'bee suit trade price', clicks: 59 },
];
const COLUMNS: Column<Row>[] = [
  {
    ...{ id: 'term', name: 'search term', px: 200, share: 1, isText: true, isSortable: true },
    value: ({ term }) => term,
    cell: ({ term }) => <b>{term}</b>,
  },
  {
    ...{ id: 'clicks', name: 'clicks', px: 60, isSortable: true, explains: 'Clicks of these days.' },
    value: ({ clicks }) => clicks,
    cell: ({ clicks }) => clicks,
  },
];

function Rows({ theme, rows }: { theme: string; rows: Row[] }) {
  const [sort, setSort] = useState<Sort | null>({ by: 'clicks', isDown: true });
  const [cursor, setCursor] = useState(0);
  const layout = useLayout('kit', COLUMNS, rows, sort);
  return (
    <div className="flex h-[130px] flex-col border border-line">
      <DataTable
        id={`kit-${theme}`}
        label={`Data table, ${theme}`}
        layout={layout}
        count={rows.length}
        rowAt={(index) => layout.rows[index]}
        cursor={cursor}
        onCursor={setCursor}
        sort={sort}
        onSort={setSort}
        saveAs="kit"
        isAside
        empty="No term is left under these filters."
      />
    </div>
  );
}
