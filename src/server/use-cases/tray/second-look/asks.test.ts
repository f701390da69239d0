import { describe, expect, test } from 'vitest';
import { whyAsked } from './asks';

describe('why it is asked for', () => {
  const money = (micros: number) => `${micros / 1e6} EUR`;
  const asked = {
    ...{ account: { always: false, changes: 50, costMicros: 100_000_000 }, changes: 50 },
    ...{ limits: { atOnce: null, in30Days: null }, costMicros: 100_000_000, sentIn30Days: 150, money },
  };
  test.each([
    [{}, []],
    [{ changes: 51 }, ['the account asks for it above 50 changes']],
    [{ costMicros: 100_000_001 }, ['the account asks for it where more than 100 EUR is stopped']],
    [{ account: { ...asked.account, always: true } }, ['the account asks for it each time']],
    [{ limits: { atOnce: 50, in30Days: 200 } }, []],
    [{ limits: { atOnce: 49, in30Days: null } }, ['you may send up to 49 changes at once without it']],
    [
      { limits: { atOnce: null, in30Days: 199 } },
      ['you may send up to 199 changes in 30 days without it, and have sent 150'],
    ],
    [{ limits: { atOnce: 0, in30Days: null } }, ['you may send up to 0 changes at once without it']],
  ])('%o', (over, why) => expect(whyAsked({ ...asked, ...over })).toEqual(why));
});
