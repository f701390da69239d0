import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { MIGRATION_NAMES } from '@/server/db/migrate';

/**
 * Migrations that have landed, with the digest of their text. Databases have had them as they are: to change what one does,
 * write the next. A migration that is new is added here with the digest that this test tells.
 */
const LANDED: Record<string, string> = {
  '001-accounts': '3f3f2a4071328c11',
  '002-facts': '4fcc1f0123fd08e4',
  '003-changes': '96cfa308bfe852a5',
  '004-facts-without-checks': '76dc600874242a42',
  '005-intake': 'e60113b494996638',
  '006-sift': '0b74c8d44abb6eaf',
  '007-lists': '7b11955b21ae41f7',
  '008-terms-by-byte': 'f0ebd5e0c861ae79',
  '009-facts-by-account': 'bc33b820135a5cf5',
  '010-accounts-of-ones-own': '1243e0f1a04a4000',
  '011-structure-again': '1b480b814fc2d4fb',
  '012-one-word-a-thing': 'c1a8cd5a181e24ad',
  '013-brand-words': '5be21a1c298754cb',
  '014-stopped-sending': '3357f63ddecc69ff',
  '015-standing-version': '1ed6c3dcda61ad2f',
  '016-bytes-of-files': 'c4afc035f9b95f08',
  '017-packed-facts': '288315f314bde73a',
  '018-trusted-sending': '01b17c1c25341359',
  '019-sheet-recipes': '42789151ac33f2ec',
  '020-clock': 'd475b674ab373c9a',
  '021-standing': '66776db946ed1cf0',
  '022-ledger-finding': 'cbf8f8ce65d42fd9',
  '023-words-known': 'f456b65eb98ed2e2',
  '024-research': '43f566905986e212',
  '025-left-knots': '87013fabb7192ed2',
  '026-keyword-reports': '88d1a289845def9b',
  '027-knots': '60e7196487e3aa7b',
  '028-campaign-priority': '432d30ae20f011d7',
  '029-seats': '3f1e128f0ec71ef7',
  '030-members': '055a21ae92d46c31',
  '031-exports': 'cbc152301322e40d',
  '032-sign-in': 'c50c2bff9249af5d',
  '033-second-look': '39546f12c536a06f',
  '034-data-of-people': '6be7403ab0b33258',
  '035-mentions': '0daa267ec97a92e7',
  '036-rules': 'e5b187bab2947e5b',
  '037-rules-act': '6e69510fc3a76ad5',
  '038-rule-sets': 'ebd3eb3b15baed3c',
  '039-alerts': '2f8fda8ca4620176',
  '040-fitted-weeks': '5806f1bda04cd371',
  '041-lane-plans': '7c45394426454bba',
};

const digestOf = (name: string) =>
  createHash('sha256')
    .update(readFileSync(`src/server/db/migrations/${name}.ts`))
    .digest('hex')
    .slice(0, 16);

test('what has landed is never edited, and what is new is noted', () => {
  expect(Object.fromEntries(MIGRATION_NAMES.map((name) => [name, digestOf(name)]))).toEqual(LANDED);
});
