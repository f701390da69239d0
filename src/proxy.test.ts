import { NextRequest } from 'next/server';
import { describe, expect, test } from 'vitest';
import { proxy } from './proxy';

const ask = (method: string, headers: Record<string, string>) =>
  proxy(new NextRequest('http://127.0.0.1:4180/x', { method, headers })).status;

describe('what a page may run', () => {
  const policy = () =>
    proxy(new NextRequest('http://127.0.0.1:4180/x', { headers: { host: '127.0.0.1:4180' } })).headers.get(
      'content-security-policy',
    )!;
  test('is our own files, and what carries the word of this one answer', () => {
    const [first, second] = [policy(), policy()];
    const scripts = /script-src ([^;]*)/.exec(first)![1];
    expect(scripts).toMatch(/^'self' 'nonce-[A-Za-z0-9+/=]{40,}'$/);
    expect(scripts).not.toBe(/script-src ([^;]*)/.exec(second)![1]);
    for (const part of [
      "default-src 'self'",
      "frame-ancestors 'none'",
      "base-uri 'none'",
      "object-src 'none'",
    ])
      expect(first).toContain(part);
  });
});

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
