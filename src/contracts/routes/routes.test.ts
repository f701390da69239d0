import * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import { addressOf, isStale, PARTS, ROUTES, type Name, type Route } from '.';

const all = Object.entries(ROUTES) as [Name, Route][];

/** They are asked again and again, whatever was decided. */
const ASKED_ALWAYS: Name[] = ['GET pulse', 'GET work', 'GET /you', 'GET sign-ins'];

describe('the table of routes', () => {
  test.each(all)('%s is whole', (name, { role, query, body, answer, from, changes }) => {
    const [method] = name.split(' ');
    expect(['look', 'prepare', 'send', 'own', 'oneself', 'anybody']).toContain(role);
    for (const schema of [query, body, answer])
      if (schema !== undefined && schema !== 'file')
        expect(v.safeParse(schema, Symbol('none')).success).toBe(false);
    // What is looked at is made of something, and what decides changes something.
    if (method === 'GET' && answer !== 'file' && !ASKED_ALWAYS.includes(name))
      expect(from?.length).toBeGreaterThan(0);
    if (method === 'PUT' || method === 'PATCH' || method === 'DELETE')
      expect(changes?.length).toBeGreaterThan(0);
    for (const part of [...(from ?? []), ...(changes ?? [])]) expect(PARTS).toContain(part);
  });

  test('every part that answers are made of is changed by something, and the other way round', () => {
    const [made, changed] = [
      all.flatMap(([, { from }]) => from ?? []),
      all.flatMap(([, { changes }]) => changes ?? []),
    ];
    for (const part of PARTS) {
      expect(changed, part).toContain(part);
      expect(made, part).toContain(part);
    }
  });

  test('a change in the tray makes stale what shows it, and nothing else', () => {
    const { changes = [] }: Route = ROUTES['POST tray'];
    const stale = all.flatMap(([name]) => (isStale(name, changes) ? [name] : []));
    expect(stale).toEqual(
      expect.arrayContaining([
        'GET tray',
        'GET sift/terms',
        'GET sift/choice',
        'GET lists',
        'GET gate',
        'GET ledger',
      ]),
    );
    for (const name of ['GET views', 'GET words', 'GET notes', 'GET account', 'GET intake'] as const)
      expect(stale).not.toContain(name);
  });
});

describe('addresses', () => {
  test.each([
    [addressOf('GET sift/terms', 'web'), '/api/web/sift/terms'],
    [addressOf('GET lists/[list]/health', 'web', { list: 'new:1/2' }), '/api/web/lists/new%3A1%2F2/health'],
    [
      addressOf('GET ledger', 'web', {}, { before: 7, other: undefined, none: null }),
      '/api/web/ledger?before=7',
    ],
    [addressOf('GET gate', 'a b', {}, { query: 'bee & hive' }), '/api/a%20b/gate?query=bee+%26+hive'],
    [addressOf('POST /accounts', ''), '/api/accounts'],
  ])('%s', (address, wanted) => expect(address).toBe(wanted));
});
