import { screen, waitFor } from '@testing-library/react';
import { useQuery } from '@tanstack/react-query';
import { describe, expect, test } from 'vitest';
import { PARTS } from '@/contracts/routes';
import { aListsView, aTrayView } from '@/screens/testing/builders';
import { Decline, show } from '@/screens/testing/screen';
import { ConnectionNote } from '../connection-note';
import { useDecide } from './decide';
import { noteDecision, notePulse, takeChanged } from './freshness';
import { useRefresh } from './refresh';
import { useRoutes } from './routes';

const versions = (text: string) => new Headers({ 'gatepost-versions': text });

describe('what is known of an account', () => {
  test('a decision changes its own parts, as long as nobody else has changed anything', () => {
    notePulse('a', { data: 1, decisions: 5 });
    noteDecision('a', 'POST notes', versions('1 5 1 6'));
    expect(takeChanged('a')).toEqual(['notes', 'ledger']);
    noteDecision('a', 'POST notes', versions('1 6 1 7'));
    noteDecision('a', 'POST views', versions('1 7 1 8'));
    expect([...takeChanged('a')].sort()).toEqual(['ledger', 'notes', 'views']);
  });

  test('where the versions before it are others, everything is stale', () => {
    notePulse('b', { data: 1, decisions: 5 });
    noteDecision('b', 'POST notes', versions('1 7 1 8'));
    expect(takeChanged('b')).toEqual(PARTS);
  });

  test('what somebody else changed before a decision from here is still news to the next pulse', () => {
    notePulse('f', { data: 1, decisions: 5 });
    noteDecision('f', 'POST sift/looked', versions('1 6 1 6'));
    expect(notePulse('f', { data: 1, decisions: 6 })).toBe(true);
    expect(notePulse('f', { data: 1, decisions: 6 })).toBe(false);
  });

  test.each([[''], ['1 2'], ['a b c d']])(
    'a header %j that says no versions makes everything stale',
    (text) => {
      noteDecision('c', 'POST notes', versions(text));
      expect(takeChanged('c')).toEqual(PARTS);
    },
  );

  test('where nothing was decided, everything may be stale', () => {
    expect(takeChanged('d')).toEqual(PARTS);
  });

  test('a pulse is news only when a version has risen', () => {
    expect(notePulse('e', { data: 1, decisions: 5 })).toBe(false);
    expect(notePulse('e', { data: 1, decisions: 5 })).toBe(false);
    expect(notePulse('e', { data: 2, decisions: 5 })).toBe(true);
    noteDecision('e', 'POST notes', versions('2 5 2 6'));
    expect(notePulse('e', { data: 2, decisions: 5 })).toBe(false); // overtaken by the decision
    expect(notePulse('e', { data: 2, decisions: 6 })).toBe(false);
  });
});

function Reader() {
  const { call, query } = useRoutes();
  const refresh = useRefresh();
  const [tray, lists, views] = [
    useQuery(query('GET tray')),
    useQuery(query('GET lists')),
    useQuery(query('GET views')),
  ];
  const isThere = tray.data && lists.data && views.data;
  return (
    <>
      {isThere ? 'all there' : 'waiting'}
      <button
        type="button"
        onClick={() =>
          void call('POST notes', { body: { kind: 'term', about: 'x', body: 'y' } }).then(() => refresh())
        }
      >
        note
      </button>
      <button type="button" onClick={() => void refresh(['draft'])}>
        draft
      </button>
    </>
  );
}

describe('asking again', () => {
  const answers = {
    ...{ 'GET tray': aTrayView(), 'GET lists': aListsView(), 'GET views': { views: [] } },
    'POST notes': { noteId: 1 },
  };

  test('only what is made of the changed parts is asked for again', async () => {
    const { user, asked } = show(<Reader />, { answers, summary: { slug: 'asking' } });
    await screen.findByText('all there', { exact: false });
    const counts = () => (['GET tray', 'GET lists', 'GET views'] as const).map((name) => asked(name).length);
    await user.click(screen.getByRole('button', { name: 'draft' }));
    await waitFor(() => expect(counts()).toEqual([2, 2, 1]));
    await user.click(screen.getByRole('button', { name: 'note' }));
    await waitFor(() => expect(asked('POST notes')).toHaveLength(1));
    expect(counts()).toEqual([2, 2, 1]); // none of them is made of notes
  });

  test('paths are made of the account, and what stands in them is escaped', async () => {
    const { asked } = show(<Escaped />, {
      answers: { 'GET lists/[list]/compare': () => Promise.reject(new Error('never mind')) },
      summary: { slug: 'a/b' },
    });
    await waitFor(() => expect(asked('GET lists/[list]/compare')).toHaveLength(1));
    expect(asked('GET lists/[list]/compare')[0]).toMatchObject({
      params: { list: 'new:1/2' },
      query: { with: '7&8' },
    });
  });
});

function Escaped() {
  const { query, address } = useRoutes();
  useQuery(query('GET lists/[list]/compare', { params: { list: 'new:1/2' }, query: { with: '7&8' } }));
  return <a href={address('GET tray/sheet')}>sheet</a>;
}

function Keeper() {
  const decide = useDecide();
  const put = (name: string) =>
    void decide('POST views', { said: `view ${name}` }, { body: { name, search: '' } }).catch(
      () => undefined,
    );
  return (
    <>
      <ConnectionNote />
      <button type="button" onClick={() => put('first')}>
        first
      </button>
      <button type="button" onClick={() => put('second')}>
        second
      </button>
    </>
  );
}

const PULSE = { data: 1, decisions: 1, jobsSilentSince: null };
const failing = (status: number, said: string) => () => {
  throw new Decline(said, status);
};

describe('when something is down', () => {
  test('it is said what, and a decision waits for it', async () => {
    const away = failing(503, 'The database does not answer. Gate Post tries again by itself.');
    const { user, answer } = show(<Keeper />, { answers: { 'GET pulse': away, 'POST views': away } });
    expect(await screen.findByText(/The database does not answer/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'first' }));
    expect(await screen.findByText(/1 decision is kept in this browser/)).toBeDefined();
    answer({ 'GET pulse': PULSE, 'POST views': { was: null } });
    window.dispatchEvent(new Event('online'));
    expect(await screen.findByText(/view first sent/)).toBeDefined();
  });

  test('a decision at which the server fails again and again is kept, and can be tried or given up', async () => {
    const { user, asked } = show(<Keeper />, {
      answers: { 'GET pulse': PULSE, 'POST views': failing(500, 'Something failed here.') },
    });
    await user.click(screen.getByRole('button', { name: 'first' }));
    for (let tries = 2; tries <= 6; tries++) {
      window.dispatchEvent(new Event('online'));
      await waitFor(() => expect(asked('POST views').length).toBeGreaterThanOrEqual(tries));
    }
    expect(await screen.findByText(/1 decision could not be done/)).toBeDefined();
    await user.click(screen.getByText('What waits'));
    await user.click(screen.getByRole('button', { name: 'Give up: view first' }));
    expect(screen.queryByText(/could not be done/)).toBeNull();
  });

  test('a job process that is not heard of is told, with since when', async () => {
    show(<Keeper />, { answers: { 'GET pulse': { ...PULSE, jobsSilentSince: '2026-11-20T09:05:00.000Z' } } });
    expect(await screen.findByText(/has not been heard of since 20 Nov/)).toBeDefined();
  });
});

describe('without a connection', () => {
  test('decisions wait in order, are named, and go out when it is back', async () => {
    const lost = () => Promise.reject(new TypeError('no network'));
    const { user, asked, answer } = show(<Keeper />, { answers: { 'GET pulse': lost, 'POST views': lost } });
    expect(await screen.findByText(/No connection to Gate Post/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'first' }));
    await user.click(screen.getByRole('button', { name: 'second' }));
    expect(await screen.findByText(/2 decisions are kept in this browser/)).toBeDefined();
    expect(asked('POST views')).toHaveLength(1); // the second stands behind the first
    answer({ 'GET pulse': PULSE, 'POST views': { was: null } });
    window.dispatchEvent(new Event('online'));
    expect(await screen.findByText(/The connection is back: 2 decisions sent/)).toBeDefined();
    expect(
      asked('POST views')
        .slice(1)
        .map(({ body }) => body),
    ).toEqual([
      { name: 'first', search: '' },
      { name: 'second', search: '' },
    ]);
  });
});
