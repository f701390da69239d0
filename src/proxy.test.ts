import { NextRequest } from 'next/server';
import { describe, expect, test } from 'vitest';
import { proxy } from './proxy';

const ask = (method: string, headers: Record<string, string>) =>
  proxy(new NextRequest('http://127.0.0.1:4180/x', { method, headers })).status;

describe('who is let in', () => {
  test.each([
    ['GET', { host: '127.0.0.1:4180' }, 200],
    ['GET', { host: 'localhost:4180' }, 200],
    ['GET', { host: 'elsewhere.example' }, 403],
    ['GET', { host: '127.0.0.1.elsewhere.example' }, 403],
    ['POST', { host: 'localhost:4180', origin: 'http://localhost:4180' }, 200],
    ['POST', { host: 'localhost:4180', origin: 'http://localhost:9999' }, 403],
    ['POST', { host: 'localhost:4180', origin: 'null' }, 403],
    ['DELETE', { host: 'localhost:4180' }, 403],
    ['PUT', { host: 'localhost:4180', origin: 'http://elsewhere.example' }, 403],
  ] as const)('%s with %o is answered %i', (method, headers, status) => {
    expect(ask(method, headers)).toBe(status);
  });
});
