import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen as shownNow, type RenderResult } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
import { withNuqsTestingAdapter } from 'nuqs/adapters/testing';
import { useState, type ReactNode } from 'react';
import { Toaster } from 'sonner';
import * as v from 'valibot';
import { vi } from 'vitest';
import type { AccountSummary } from '@/contracts/common';
import { ROUTES, type AnswerOf, type Name, type Route } from '@/contracts/routes';
import type { Role } from '@/contracts/roles';
import { sayVersions, VERSIONS_HEADER } from '@/contracts/versions';
import { AccountContext } from '@/screens/frame/account-context';
import { aSummary } from './builders';

/** What a screen asked the server for. */
export type Asked = {
  name: Name;
  params: Record<string, string>;
  query: Record<string, string>;
  body: unknown;
};

type AnswerFor<N extends Name> = AnswerOf<N> | ((asked: Asked) => AnswerOf<N> | Promise<AnswerOf<N>>);
/** What the server answers, by route; an answer that does not fit the route's schema fails the test. */
export type Answers = { [N in Name]?: AnswerFor<N> };

/** An answer that declines, with its reason; with a status from 500 on, one that can not be given now. */
export class Decline extends Error {
  constructor(
    message: string,
    readonly status = 409,
  ) {
    super(message);
  }
}

export type Shown = RenderResult & {
  user: UserEvent;
  /** what was asked of a route, oldest first */
  asked(name: Name): Asked[];
  /** changes what the server answers from now on */
  answer(more: Answers): void;
  /** the address as the screen left it */
  search(): URLSearchParams;
};

/** Shows a screen, or a part of one, as it stands inside the frame of an account. The server is the given answers. */
export function show(
  screen: ReactNode,
  {
    answers = {},
    search = '',
    summary = {},
    role = 'own',
  }: { answers?: Answers; search?: string; summary?: Partial<AccountSummary>; role?: Role } = {},
): Shown {
  let known: Answers = answers;
  const log: Asked[] = [];
  let decisions = 1;
  vi.stubGlobal('fetch', async (path: string, init: { method?: string; body?: unknown } = {}) => {
    const asked = toAsked(path, init);
    log.push(asked);
    const { answer: schema, changes }: Route = ROUTES[asked.name];
    const answer = known[asked.name] as AnswerFor<Name> | undefined;
    if (answer === undefined)
      return Response.json({ error: `nothing answers ${asked.name}` }, { status: 500 });
    try {
      const given: unknown = typeof answer === 'function' ? await answer(asked) : answer;
      const parsed = schema === 'file' ? given : v.parse(schema, given);
      const before = { data: 1, decisions };
      if (changes) decisions += 1;
      const headers = changes && { [VERSIONS_HEADER]: sayVersions(before, { data: 1, decisions }) };
      return Response.json(parsed, { headers });
    } catch (error) {
      if (error instanceof Decline) return Response.json({ error: error.message }, { status: error.status });
      throw error;
    }
  });
  let left = new URLSearchParams(search);
  const Adapter = withNuqsTestingAdapter({
    searchParams: search,
    hasMemory: true,
    onUrlUpdate: ({ searchParams }) => (left = searchParams),
  });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 30_000 } } });
  const shown = render(
    <QueryClientProvider client={client}>
      <Adapter>
        <FrameOfTest summary={aSummary(summary)} role={role}>
          {screen}
        </FrameOfTest>
        <Toaster />
      </Adapter>
    </QueryClientProvider>,
  );
  return {
    ...shown,
    user: userEvent.setup({ delay: null, pointerEventsCheck: 0 }),
    asked: (name) => log.filter((one) => one.name === name),
    answer: (more) => (known = { ...known, ...more }),
    search: () => left,
  };
}

function FrameOfTest({
  summary,
  role,
  children,
}: {
  summary: AccountSummary;
  role: Role;
  children: ReactNode;
}) {
  const me = { id: 3, name: 'Ilse Brandow', role };
  const [body, setBody] = useState<HTMLElement | null>(null);
  const [actions, setActions] = useState<HTMLElement | null>(null);
  const accounts = [
    { slug: 'web', name: 'Larkfell web' },
    { slug: 'market', name: 'Larkfell market' },
  ];
  const people = [
    { id: 1, name: 'Maren Oakes', role: 'own' as const },
    { id: 2, name: 'Tobias Finch', role: 'send' as const },
    me,
  ];
  return (
    <AccountContext.Provider
      value={{ summary, accounts, people, me, isOpen: true, inHand: { body, actions } }}
    >
      {children}
      <section aria-label="In hand">
        <div ref={setBody} />
        <div ref={setActions} />
      </section>
    </AccountContext.Provider>
  );
}

const PATTERNS = (Object.keys(ROUTES) as Name[]).map((name) => {
  const [method, path] = name.split(' ') as [string, string];
  const names = [...path.matchAll(/\[(\w+)\]/g)].map(([, param]) => param!);
  const below = path.startsWith('/') ? path : `/[^/]+/${path}`;
  const pattern = new RegExp(`^/api${below.replace(/\[\w+\]/g, '([^/]+)')}$`);
  return { name, method, names, pattern, fixed: -names.length };
});

function toAsked(path: string, { method = 'GET', body }: { method?: string; body?: unknown }): Asked {
  const url = new URL(path, 'http://gatepost.example');
  const found = PATTERNS.filter((one) => one.method === method && one.pattern.test(url.pathname)).sort(
    (a, b) => b.fixed - a.fixed,
  )[0];
  if (!found) throw new Error(`${method} ${url.pathname} is no route`);
  const values = found.pattern.exec(url.pathname)!.slice(1).map(decodeURIComponent);
  return {
    name: found.name,
    params: Object.fromEntries(found.names.map((name, i) => [name, values[i]!])),
    query: Object.fromEntries(url.searchParams),
    body: typeof body === 'string' ? JSON.parse(body) : body,
  };
}

/** Chooses by mouse, as a person would: opens the choice, and presses the option. */
export async function choose(user: UserEvent, choice: HTMLElement, option: string | RegExp): Promise<void> {
  await user.click(choice);
  await user.click(await shownNow.findByRole('option', { name: option }));
}
