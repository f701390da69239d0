import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { newListId } from '../changes';
import { compileAccountGate, type AccountShape, type MatchType } from '../gate';
import { findRedundant } from '../tidy';
import { findCommonSets, findUnlike, gatherIntoList } from './index';
import { anyEntry, anyText } from './testing';

const RUNS = { numRuns: 1_000 };

const CAMPAIGNS = ['c1', 'c2', 'c3', 'c4'].map((id) => ({
  id,
  adGroups: [{ id: `${id}-1` }, { id: `${id}-2` }],
}));
const anyAccount: fc.Arbitrary<AccountShape> = fc
  .array(
    fc.record({ entry: anyEntry, on: fc.constantFrom('c1', 'c2', 'c3', 'c4', 'c1-1', 'account', '7') }),
    {
      maxLength: 40,
    },
  )
  .map((singles) => ({
    campaigns: CAMPAIGNS,
    lists: [{ id: '7', hungOn: ['c1', 'c2'] }],
    negatives: singles.map(({ entry, on }, n) => ({
      ...entry,
      id: String(n),
      place:
        on === 'account'
          ? { kind: 'account' as const, id: null }
          : {
              kind:
                on === '7'
                  ? ('list' as const)
                  : on.includes('-')
                    ? ('adGroup' as const)
                    : ('campaign' as const),
              id: on,
            },
    })),
  }));

/** The account with changes made to it, by the plain way. */
function made(account: AccountShape, changes: ReturnType<typeof gatherIntoList>): AccountShape {
  const lists = [...account.lists];
  let negatives = [...account.negatives];
  for (const change of changes) {
    if (change.kind === 'make list') lists.push({ id: change.listId, hungOn: [] });
    if (change.kind === 'add negative') {
      const { text, match, place } = change;
      negatives.push({ id: `new ${text} ${match}`, text, match, place });
    }
    if (change.kind === 'remove negative') {
      negatives = negatives.filter(
        ({ text, match, place }) =>
          text !== change.text ||
          match !== change.match ||
          place.kind !== change.place.kind ||
          place.id !== change.place.id,
      );
    }
    if (change.kind === 'hang list') {
      const at = lists.findIndex(({ id }) => id === change.listId);
      const hungOn = lists[at]!.hungOn;
      lists[at] = {
        id: change.listId,
        hungOn:
          change.campaignId === null || hungOn === 'account' ? 'account' : [...hungOn, change.campaignId],
      };
    }
  }
  return { ...account, lists, negatives };
}

const stoppedIn = (account: AccountShape, query: string) => {
  const gate = compileAccountGate(account);
  return CAMPAIGNS.flatMap(({ adGroups }) => adGroups.map(({ id }) => gate.stoppers(query, id).length > 0));
};

describe('common sets', () => {
  test('moving one into a list changes no gate, and saves what it says', () => {
    fc.assert(
      fc.property(anyAccount, fc.array(anyText, { minLength: 1, maxLength: 4 }), (account, queries) => {
        for (const { entries, campaignIds, saves } of findCommonSets(account, { most: 3 })) {
          expect(saves).toBe(entries.length * campaignIds.length - entries.length - campaignIds.length);
          const from = campaignIds.map((id) => ({ kind: 'campaign' as const, id }));
          const after = made(
            account,
            gatherIntoList({ listId: newListId('1'), name: 'Common' }, entries, from),
          );
          expect(findUnlike(account, after)).toBeUndefined();
          for (const query of queries) expect(stoppedIn(after, query)).toEqual(stoppedIn(account, query));
        }
      }),
      RUNS,
    );
  });

  test('the first is the largest of all sets of campaigns', () => {
    fc.assert(
      fc.property(anyAccount, (account) => {
        const on = new Map<string, Set<string>>();
        for (const { text, match, place } of account.negatives) {
          if (place.kind !== 'campaign') continue;
          const key = `${match} ${text}`;
          on.set(key, (on.get(key) ?? new Set()).add(place.id!));
        }
        const all = CAMPAIGNS.map(({ id }) => id);
        let most = 0;
        for (let bits = 0; bits < 16; bits++) {
          const chosen = all.filter((_, i) => bits & (1 << i));
          const items = [...on.values()].filter((has) => chosen.every((id) => has.has(id))).length;
          if (chosen.length > 1 && items > 1)
            most = Math.max(most, items * chosen.length - items - chosen.length);
        }
        expect(findCommonSets(account, { most: 1 })[0]?.saves ?? 0).toBe(most);
      }),
      RUNS,
    );
  });

  test('accounts that answer one query otherwise are told apart', () => {
    fc.assert(
      fc.property(anyAccount, anyAccount, anyText, (a, b, query) => {
        if (findUnlike(a, b) === undefined) expect(stoppedIn(b, query)).toEqual(stoppedIn(a, query));
      }),
      RUNS,
    );
  });

  test('dropping what another covers is proved: answers are compared, not entries', () => {
    fc.assert(
      fc.property(anyAccount, (account) => {
        const needless = new Set(findRedundant(account).map(({ id }) => id));
        const after = { ...account, negatives: account.negatives.filter(({ id }) => !needless.has(id)) };
        expect(findUnlike(account, after)).toBeUndefined();
      }),
      RUNS,
    );
    const at = (id: string, text: string, match: MatchType) => ({
      ...{ id, text, match, place: { kind: 'campaign', id: CAMPAIGNS[0]!.id } as const },
    });
    const negatives = [at('1', 'free', 'broad'), at('2', 'free hive', 'phrase')];
    const account: AccountShape = { campaigns: CAMPAIGNS, lists: [], negatives };
    expect(findUnlike(account, { ...account, negatives: [negatives[0]!] })).toBeUndefined();
    expect(findUnlike(account, { ...account, negatives: [negatives[1]!] })?.negative.text).toBe('free');
  });

  test('account-wide negatives go into a list that hangs on the whole account', () => {
    const account: AccountShape = {
      campaigns: CAMPAIGNS,
      lists: [],
      negatives: [{ id: '1', text: 'job', match: 'broad', place: { kind: 'account', id: null } }],
    };
    const after = made(
      account,
      gatherIntoList(
        { listId: 'new:1', name: 'Jobs' },
        [{ text: 'job', match: 'broad' }],
        [{ kind: 'account', id: null }],
      ),
    );
    expect(after.lists).toEqual([{ id: 'new:1', hungOn: 'account' }]);
    expect(findUnlike(account, after)).toBeUndefined();
  });
});
