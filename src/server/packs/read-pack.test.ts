import { describe, expect, test } from 'vitest';
import { readPack } from './read-pack';

const lines = (...all: string[]) => all.join('\n');
const PACK = lines(
  '{ "gatepost": "starter pack", "version": 1,',
  '  "name": "Jobs", "about": "Work", "language": "en", "match": "phrase",',
  '  "entries": [',
  '    { "text": "salary", "variants": ["salaries"] }',
  '  ] }',
);

test('a pack is read as it is written, with a mark of its encoding or without', () => {
  const read = readPack(`\uFEFF${PACK}`);
  expect(read).toMatchObject({
    pack: { name: 'Jobs', entries: [{ text: 'salary', variants: ['salaries'] }] },
  });
  expect(readPack(PACK)).toEqual(read);
});

describe('what is wrong is told with its line', () => {
  test.each([
    ['no JSON at all', 'salary\ntattoo', 1, /no JSON/],
    ['a missing comma', PACK.replace('"en",', '"en"'), 2, /comma expected/],
    ['an empty file', '', 1, /empty|no JSON/],
    ['an entry without a text', PACK.replace('"salary"', '""'), 4, /entries\.0\.text: An entry needs a text/],
    ['another match type', PACK.replace('"match": "phrase"', '"match": "fuzzy"'), 2, /^match: /],
    ['a word that no pack has', PACK.replace('"about"', '"abuot"'), 2, /abuot|about/],
    ['no entries', PACK.replace(/\{ "text.*\}/u, ''), 3, /^entries: The pack holds no entry/],
    ['a list', '[1]', 1, /gatepost/],
  ])('%s', (_, text, line, reason) => {
    const read = readPack(text);
    expect('faults' in read && read.faults.some((one) => one.line === line && reason.test(one.reason))).toBe(
      true,
    );
  });
});
