import { describe, expect, test } from 'vitest';
import { mendSearch } from './mend-search';

const mended = (search: string, campaigns?: string[]) =>
  mendSearch(new URLSearchParams(search), campaigns && new Set(campaigns)).map((m) => `${m.name}: ${m.why}`);

describe('an address that makes no sense', () => {
  test.each([
    ['clicks=many', 'clicks: it must be a whole number from 0 to 1,000,000'],
    ['clicks=-3', 'clicks: it must be a whole number from 0 to 1,000,000'],
    ['days=0', 'days: it must be a whole number from 1 to 366, or two days, as in 2026-10-20~2026-11-18'],
    ['view=all', 'view: it must be one of remaining, stopped, kept, aside, already'],
    ['region=40-10,0-1', 'region: it must be clicks and conversions from-to, as in 10-40,0-1'],
    [
      'sort=luck',
      'sort: it must be one of without, cost, clicks, impressions, conversions, target, evidence, term',
    ],
    [`text=${'x'.repeat(201)}`, 'text: it is longer than 200 characters'],
  ])('%s is explained', (search, why) => {
    expect(mended(search)).toEqual([why]);
  });

  test.each(['', 'clicks=10&returns=none&region=10-40,0-1.5&days=30', 'unknown=thing', 'campaign=7'])(
    '“%s” is left as it is',
    (search) => {
      expect(mended(search)).toEqual([]);
    },
  );

  test('a campaign that is not of the account is named once the campaigns are known', () => {
    expect(mended('campaign=9', ['7'])).toEqual(['campaign: this account has no such campaign']);
    expect(mended('campaign=7', ['7'])).toEqual([]);
  });
});
