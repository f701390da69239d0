'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { Suspense, useEffect, useState, type CSSProperties, type ReactNode } from 'react';
import type { AccountSummary } from '@/contracts/common';
import type { Member } from '@/contracts/roles';
import { counted } from '@/core';
import { Tray } from '@/screens/tray/tray';
import { formatCount, formatDay, formatShare } from '@/ui/format';
import { Key } from '@/ui/button';
import { focusWork } from '@/ui/focus-work';
import { Logo } from '@/ui/state-icon';
import { useNarrow } from '@/ui/use-narrow';
import { useStored } from '@/ui/stored';
import { AccountContext } from './account-context';
import { ConnectionNote } from './connection-note';
import { WhoAmI } from './who-am-i';
import { useSingleKeys } from './keys/keys';
import { DaysPicker } from './days-picker';
import { KeysHelp } from './keys/keys-help';
import { useFrameKeys } from './keys/use-frame-keys';
import { PlatformClock } from './platform-clock';
import { Jump } from './jump';
import { SCREENS } from './screens';
import { ThemeSwitch, turnTheme } from './theme-switch';
import { useRoutes } from './data/routes';
import { useNotedFiles } from './data/noted-files';
import { Select } from '@/ui/select';
import { isTyping } from './keys/typing';

type Props = {
  summary: AccountSummary;
  accounts: { slug: string; name: string }[];
  people: Member[];
  /** who has signed in, or was chosen in the top strip */
  me: Member;
  /** nobody signs in here: who one is, is chosen */
  isOpen: boolean;
  children: ReactNode;
};

/** Rail, strip, work surface, and the panel of what is in hand and what is decided. */
export function Frame({ summary, accounts, people, me, isOpen, children }: Props) {
  const [body, setBody] = useState<HTMLElement | null>(null);
  const [actions, setActions] = useState<HTMLElement | null>(null);
  const isNarrow = useNarrow();
  const [wanted, storeFolded] = useStored('gatepost-panel', foldIn);
  const isFolded = wanted === null ? isNarrow : wanted === 'folded';
  const fold = (folded: boolean) => storeFolded(folded ? 'folded' : 'open');
  useFrameKeys();
  useNotedFiles(summary.slug);
  return (
    <AccountContext.Provider value={{ summary, accounts, people, me, isOpen, inHand: { body, actions } }}>
      <div
        className="frame grid h-dvh min-w-(--least) grid-cols-[148px_minmax(0,1fr)_var(--panel)] grid-rows-[48px_minmax(0,1fr)] max-[1180px]:grid-cols-[52px_minmax(0,1fr)_var(--panel)]"
        style={
          { '--panel': isFolded ? '44px' : '304px', '--least': isFolded ? '600px' : '860px' } as CSSProperties
        }
      >
        <SkipLinks />
        <Rail summary={summary} />
        <Suspense>
          <Strip {...{ summary, accounts, people, me, isOpen }} onFold={() => fold(!isFolded)} />
        </Suspense>
        <main className="col-start-2 row-start-2 flex min-w-0 flex-col overflow-hidden border-r border-line bg-sheet">
          <ConnectionNote />
          <Suspense>{children}</Suspense>
        </main>
        <aside
          aria-label="In hand and the Tray"
          className="col-start-3 row-start-2 flex min-h-0 flex-col overflow-hidden bg-paper"
        >
          {!isFolded && (
            <section
              aria-label="In hand"
              className="flex min-h-0 shrink flex-col border-b border-line bg-sheet"
            >
              <div
                ref={setBody}
                tabIndex={0}
                role="group"
                aria-label="What is in hand"
                className="min-h-0 overflow-y-auto px-4 pt-2.5 pb-2"
              />
              <div ref={setActions} className="px-4 pb-2.5 empty:hidden" />
            </section>
          )}
          <Suspense>
            <Tray isFolded={isFolded} onFold={fold} />
          </Suspense>
        </aside>
      </div>
    </AccountContext.Provider>
  );
}

/** The first stops of Tab: past the rail and the strip. */
function SkipLinks() {
  const to = (name: string, target: () => void) => (
    <button
      type="button"
      className="sr-only focus:not-sr-only focus:fixed focus:top-2 focus:left-2 focus:z-50 focus:rounded focus:bg-sheet focus:px-3 focus:py-1.5 focus:shadow-lg"
      onClick={target}
    >
      {name}
    </button>
  );
  const focusIn = (label: string) =>
    document.querySelector<HTMLElement>(`[aria-label="${label}"] :is(button, [tabindex="0"])`)?.focus();
  return (
    <>
      {to('To the table', focusWork)}
      {to('To what is in hand', () => focusIn('In hand'))}
      {to('To the tray', () => focusIn('Tray'))}
    </>
  );
}

/** What a person wants of the panel; null: there is nothing but the width of the page to go by. */
const foldIn = (text: string | null) => text;

function Rail({ summary }: { summary: AccountSummary }) {
  const pathname = usePathname();
  const { query } = useRoutes();
  const { data: open } = useQuery({ ...query('GET open') });
  return (
    <aside aria-label="Rail" className="row-span-2 flex flex-col border-r border-line">
      <Link
        href="/"
        prefetch={false}
        aria-label="Gate Post: the accounts"
        className="flex h-12 items-center gap-2.5 px-4 font-title text-brand font-bold"
      >
        <Logo />
        <span className="max-[1180px]:hidden">Gate Post</span>
      </Link>
      <nav aria-label="Screens" className="mt-1 flex flex-col">
        {SCREENS.map(({ path, name, icon: Icon, open: what }) => {
          const count = open && path in open ? open[path as keyof typeof open] : 0;
          const href = `/${summary.slug}/${path}`;
          const current = pathname.startsWith(href);
          return (
            <Link
              key={path}
              href={href}
              prefetch={false} // what was asked for comes first
              aria-current={current ? 'page' : undefined}
              title={count > 0 ? `${name}: ${formatCount(count)} ${what}` : name}
              className={`flex items-center gap-2.5 border-l-[3px] px-3.5 py-1.5 ${current ? 'border-pine bg-raised font-semibold text-pine' : 'border-transparent hover:bg-raised'}`}
            >
              <Icon size={16} aria-hidden className="shrink-0" />
              <span className="max-[1180px]:sr-only">{name}</span>
              {count > 0 && (
                <span className="ml-auto text-small font-normal text-soft max-[1180px]:sr-only">
                  {formatCount(count)} <span className="sr-only">{what}</span>
                </span>
              )}
            </Link>
          );
        })}
      </nav>
      <div className="mt-auto px-4 pb-3 text-small text-soft max-[1180px]:hidden">
        {summary.dataDays ? (
          <>
            <p>Data to {formatDay(summary.dataDays.to, true)}</p>
            <p>Lag {counted(summary.lagDays, 'day')}</p>
          </>
        ) : (
          'No data yet'
        )}
        {summary.platformDay && <PlatformClock day={summary.platformDay} />}
      </div>
    </aside>
  );
}

type StripProps = Omit<Props, 'children'> & { onFold: () => void };

function Strip({ summary, accounts, people, me, isOpen, onFold }: StripProps) {
  const formatMoney = useMoney();
  const router = useRouter();
  const target =
    summary.steersBy === 'CPA' ? formatMoney(summary.targetMicros) : formatShare(summary.targetAcos);
  return (
    <header className="col-span-2 flex min-w-0 items-center gap-5 border-b max-[900px]:gap-2.5 border-line px-4">
      <Select
        label="Account"
        look="word"
        className="max-w-56 shrink-0 max-[900px]:max-w-32"
        options={accounts.map(({ slug, name }) => ({ key: slug, says: name }))}
        value={summary.slug}
        onChange={(slug) => router.push(`/${slug}/today`)}
      />
      <DaysPicker summary={summary} />
      <span className="whitespace-nowrap text-soft max-[900px]:hidden">
        Steers by {summary.steersBy} <span className="text-ink">{target}</span>
        {summary.steersBy === 'CPA' && ` ${summary.currency}`}
      </span>
      <GateField slug={summary.slug} />
      <WhoAmI {...{ me, people, isOpen }} />
      <Jump
        commands={[
          { name: 'Fold or open In hand and the Tray', run: onFold },
          { name: 'Light or dark', run: turnTheme },
        ]}
      />
      <KeysHelp />
      <ThemeSwitch />
    </header>
  );
}

function GateField({ slug }: { slug: string }) {
  const router = useRouter();
  const [single] = useSingleKeys();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        event.key !== 'g' ||
        !single ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isTyping(event.target)
      )
        return;
      event.preventDefault();
      document.getElementById('gate-query')?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [single]);
  return (
    <form
      role="search"
      className="relative ml-auto w-64 min-w-24"
      onSubmit={(event) => {
        event.preventDefault();
        const query = new FormData(event.currentTarget).get('query');
        if (typeof query === 'string' && query.trim() !== '')
          router.push(`/${slug}/gate?query=${encodeURIComponent(query)}`);
      }}
    >
      <input
        id="gate-query"
        name="query"
        aria-label="Gate check: would a query get through?"
        aria-keyshortcuts="g"
        placeholder="Would a query get through?"
        autoComplete="off"
        className="w-full rounded border border-line bg-sheet py-1 pr-8 pl-2.5 placeholder:text-soft"
      />
      <span className="absolute top-1.5 right-2 text-soft">
        <Key>g</Key>
      </span>
    </form>
  );
}
