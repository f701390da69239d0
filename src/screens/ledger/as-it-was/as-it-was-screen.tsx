'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { parseAsBoolean, parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { counted, shiftDay } from '@/core';
import { STANDING_KINDS, type StandingLine, type StandingView } from '@/contracts/standing';
import { useAccount } from '@/screens/frame/account-context';
import { InHand } from '@/screens/frame/in-hand';
import { useRoutes } from '@/screens/frame/data/routes';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { ReasonForm } from '@/screens/tray/reason-form';
import { Button } from '@/ui/button';
import { FIELD } from '@/ui/form';
import { formatDay } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { optionsIn, Select } from '@/ui/select';
import { DataTable } from '@/ui/table/data-table';
import { inMemory, useLayout } from '@/ui/table/use-layout';
import { STANDING_COLUMNS } from './standing-columns';
import { usePutBack, type HeldBack } from './use-put-back';

const KINDS: Record<(typeof STANDING_KINDS)[number], string> = {
  negative: 'negatives',
  list: 'lists',
  hanging: 'where lists hung',
  placement: 'placements',
  exclusion: 'excluded products',
};
const SHOWS = { differs: 'what differs from now', all: 'all that stood then or stands now' };
const SHOW_KEYS = ['differs', 'all'] as const;
const WEEK = 7;

/** The account at the end of a day, beside how it is now; any part of it can be put back. */
export function AsItWasScreen() {
  const { query } = useRoutes();
  const { slug, today } = useToday();
  const [single] = useSingleKeys();
  const [url, setUrl] = useQueryStates({
    day: parseAsString.withDefault(shiftDay(today, -WEEK)),
    show: parseAsStringLiteral(SHOW_KEYS).withDefault('differs'),
    kind: parseAsStringLiteral(STANDING_KINDS),
    find: parseAsString.withDefault(''),
    by: parseAsString.withDefault('until'),
    down: parseAsBoolean.withDefault(true),
    row: parseAsInteger,
  });
  const { day, show, kind, find } = url;
  const asked = { day, show, find: find.trim(), ...(kind && { kind }) };
  const { data, error } = useQuery({
    ...query('GET standing', { query: asked }),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const sort = { by: url.by, isDown: url.down };
  const layout = useLayout('as-it-was', STANDING_COLUMNS, data?.lines ?? [], sort);
  const { rows } = layout;
  const at = Math.max(
    0,
    rows.findIndex((line) => line.id === url.row),
  );
  const { putBack, heldBack, leave } = usePutBack(day);
  const differing = rows.filter(({ is }) => is !== 'same');
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-baseline gap-x-4 border-b border-line bg-paper px-4 py-2.5">
        <h1 className="font-title text-title font-bold">As it was</h1>
        <form
          role="search"
          aria-label="Filters"
          className="flex flex-wrap items-baseline gap-x-1.5 text-soft"
          onSubmit={(event) => {
            event.preventDefault();
            document.getElementById('as-it-was')?.focus();
          }}
        >
          at the end of
          <input
            id="first-filter"
            type="date"
            aria-label="Day"
            className={FIELD}
            max={shiftDay(today, -1)}
            value={day}
            onChange={({ target }) => target.value !== '' && void setUrl({ day: target.value, row: null })}
          />
          <Select
            label="What is shown"
            look="word"
            options={optionsIn(SHOW_KEYS, SHOWS)}
            value={show}
            onChange={(key) => void setUrl({ show: key, row: null })}
          />
          of
          <Select
            label="Of what kind"
            look="word"
            options={[{ key: '', says: 'every kind' }, ...optionsIn(STANDING_KINDS, KINDS)]}
            value={kind ?? ''}
            onChange={(key) => void setUrl({ kind: key === '' ? null : key, row: null })}
          />
          that says
          <input
            aria-label="Elements that say this"
            placeholder="anything"
            className="min-h-6 w-[130px] border-b border-dashed border-soft bg-transparent font-semibold text-ink placeholder:text-soft"
            value={find}
            onChange={({ target }) => void setUrl({ find: target.value, row: null })}
          />
        </form>
        <Link className="ml-auto text-pine hover:underline" href={`/${slug}/ledger`}>
          Ledger
        </Link>
      </header>
      {data && <Counts data={data} />}
      <ErrorText error={error} isWhole />
      <DataTable
        id="as-it-was"
        label="What stood then"
        {...inMemory(layout)}
        cursor={at}
        onCursor={(index) => void setUrl({ row: rows[index]?.id ?? null })}
        sort={sort}
        onSort={({ by, isDown }) => void setUrl({ by, down: isDown })}
        onKey={({ key }) => {
          if (key === 'Enter' && rows[at] && rows[at].is !== 'same') {
            void putBack([rows[at].id]);
            return true;
          }
          if (!single || key !== 'f') return false;
          document.getElementById('first-filter')?.focus();
          return true;
        }}
        saveAs={`as on ${day}`}
        keysHelp="Arrows go through the elements, Enter puts the one in hand back as it was, f goes to the filters."
        empty={data && 'Nothing differs: what stood then stands now, and nothing came since.'}
      />
      <LineInHand
        line={rows[at]}
        day={day}
        all={differing}
        heldBack={heldBack}
        onLeave={leave}
        onPutBack={(ids, because) => void putBack(ids, because)}
      />
    </div>
  );
}

/** The account's day in progress, as far as its data tell; the server knows it exactly. */
function useToday() {
  const { slug, platformDay } = useAccount().summary;
  return { slug, today: platformDay ?? new Date().toISOString().slice(0, 10) };
}

function Counts({ data: { day, gone, isNew, renamed, same, knownFrom, lines } }: { data: StandingView }) {
  const all = gone + isNew + renamed;
  return (
    <p className="border-b border-line px-4 py-1.5 text-table" role="status">
      Since {formatDay(day, true)} <b>{counted(gone, 'element')}</b> went, <b>{isNew}</b> came
      {renamed > 0 && `, ${counted(renamed, 'list')} got another name`}; {same} stand as they did.
      {day < knownFrom &&
        ` Gate Post knows the account since ${formatDay(knownFrom, true)}: what was taken away before is not known.`}
      {lines.length < all && ` The first ${lines.length} are listed; filters show the others.`}
    </p>
  );
}

function LineInHand({
  line,
  day,
  all,
  heldBack,
  onLeave,
  onPutBack,
}: {
  line: StandingLine | undefined;
  day: string;
  all: readonly StandingLine[];
  heldBack: HeldBack | null;
  onLeave: () => void;
  onPutBack: (ids: readonly number[], because?: string) => void;
}) {
  if (!line)
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Choose an element to see when it stood.</p>
      </InHand>
    );
  return (
    <InHand title={line.what}>
      <div className="mt-1 text-table">
        {line.where && <p>{line.where}</p>}
        <p className="text-soft">
          Stood{' '}
          {line.from === null
            ? 'since before Gate Post knew the account'
            : `from ${formatDay(line.from, true)}`}
          {line.until !== null ? ` up to ${formatDay(line.until, true)}.` : ', and stands now.'}
        </p>
        <p className="mt-1">{SAID[line.is]}</p>
        <div className="mt-2 flex flex-wrap gap-1.5">
          {line.is !== 'same' && (
            <Button tone="main" hotkey="↵" onClick={() => onPutBack([line.id])}>
              As on {formatDay(day)}
            </Button>
          )}
          {all.length > 1 && (
            <Button onClick={() => onPutBack(all.map(({ id }) => id))}>
              All {all.length} that differ here
            </Button>
          )}
        </div>
        {heldBack && (
          <>
            <p className="mt-1 text-rust" role="alert">
              {heldBack.said}
            </p>
            <ReasonForm
              isFocused
              onForce={(reason) => onPutBack(heldBack.ids, reason)}
              onLeave={() => {
                onLeave();
                document.getElementById('as-it-was')?.focus();
              }}
            />
          </>
        )}
        <p className="mt-1 text-small text-soft">
          It comes into the tray, which says what it stops and what it opens again.
        </p>
      </div>
    </InHand>
  );
}

const SAID: Record<StandingLine['is'], string> = {
  same: 'It stands as it did.',
  gone: 'It is gone: put back, it stands again.',
  new: 'It came since: put back as it was, it goes.',
  renamed: 'It has another name now.',
};
