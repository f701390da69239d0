import { expect, test } from 'vitest';
import { ownPath } from './own-path';

test.each([
  ['/web/sift?days=30', '/web/sift?days=30'],
  ['/', '/'],
  [null, '/'],
  ['', '/'],
  ['//elsewhere.example/in', '/'],
  ['/\\elsewhere.example', '/'],
  ['\\\\elsewhere.example', '/'],
  ['https://elsewhere.example', '/'],
  ['javascript:alert(1)', '/'],
  ['/\t/elsewhere.example', '/'],
  ['/..//elsewhere.example', '/'],
])('%j leads to %j', (asked, path) => expect(ownPath(asked)).toBe(path));
