import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { listMadeBy, type Change } from '../changes';
import { changesBack, compareStanding, type Standing } from '.';

const list = (listId: string, name = `List ${listId}`): Extract<Standing, { kind: 'list' }> => ({
  ...{ kind: 'list', listId, name, holds: 'words' },
});
const inList = (listId: string, text: string): Standing => ({
  ...{ kind: 'negative', text, match: 'phrase', place: { kind: 'list', id: listId } },
});
let made = 0;
const freshKey = () => `key${made++}`;
const back = (then: Standing[], now: Standing[]) => {
  const compared = compareStanding(then, now);
  const gone = compared.flatMap(({ element, is }) =>
    is === 'gone' && element.kind === 'list' ? [element] : [],
  );
  return changesBack(compared, gone, freshKey);
};

describe('what stood then, beside now', () => {
  test('is the same, gone, new or renamed', () => {
    const then = [list('1', 'Old'), inList('1', 'movie'), inList('1', 'song')];
    const now = [list('1', 'Fresh'), inList('1', 'song'), inList('1', 'poem')];
    expect(compareStanding(then, now).map(({ is }) => is)).toEqual(['renamed', 'gone', 'same', 'new']);
  });

  test('an entry of a list that is gone makes the list first, once, and hangs nothing by itself', () => {
    const [, movie, song] = [list('7'), inList('7', 'movie'), inList('7', 'song')];
    const chosen = compareStanding([movie, song], []);
    const [first, second, third] = changesBack(chosen, [list('7')], freshKey);
    const madeId = listMadeBy(first!)!.listId;
    expect([first!.kind, second, third]).toMatchObject([
      'make list',
      { kind: 'add negative', place: { id: madeId } },
      { kind: 'add negative', place: { id: madeId } },
    ]);
    expect(changesBack(chosen, [list('7')], freshKey)).toHaveLength(3);
  });

  test('what came since leaves a list before the list goes', () => {
    const kinds = back(
      [],
      [list('1'), inList('1', 'movie'), { kind: 'hanging', listId: '1', campaignId: '2' }],
    );
    expect(kinds.map(({ kind }) => kind)).toEqual(['remove negative', 'take down list', 'remove list']);
  });
});

const ids = ['1', '2', '3'] as const;
/** Accounts in which what needs a list has it. */
const accountArb = fc
  .record({
    lists: fc.uniqueArray(fc.constantFrom(...ids)),
    names: fc.array(fc.constantFrom('a', 'b'), { minLength: 3, maxLength: 3 }),
    rest: fc.uniqueArray(
      fc.oneof(
        fc
          .tuple(fc.constantFrom(...ids), fc.constantFrom('movie', 'song'))
          .map(([id, text]) => inList(id, text)),
        fc.record({
          kind: fc.constant('hanging' as const),
          listId: fc.constantFrom(...ids),
          campaignId: fc.constantFrom('5', null),
        }),
        fc.record({
          kind: fc.constant('exclusion' as const),
          code: fc.constantFrom('LK-1', 'LK-2'),
          place: fc.constant({ kind: 'campaign' as const, id: '5' }),
        }),
        fc.record({
          kind: fc.constant('placement' as const),
          listId: fc.constantFrom(...ids),
          address: fc.constantFrom('a.example', 'b.example'),
        }),
      ),
      { selector: (one) => JSON.stringify(one) },
    ),
  })
  .map(({ lists, names, rest }): Standing[] => [
    ...lists.map((id, i) => list(id, `${names[i]} ${id}`)),
    ...rest.filter((one) => {
      if (one.kind === 'negative') return one.place.kind !== 'list' || lists.includes(one.place.id as '1');
      return !('listId' in one) || lists.includes(one.listId as '1');
    }),
  ]);

/** An account as a plain set, and changes as additions to it and removals. */
function make(now: readonly Standing[], changes: readonly Change[]): Standing[] {
  const standing = new Map(now.map((one) => [JSON.stringify(sorted(one)), one]));
  const put = (one: Standing) => standing.set(JSON.stringify(sorted(one)), one);
  const drop = (one: Standing) => {
    if (!standing.delete(JSON.stringify(sorted(one)))) throw new Error(`not there: ${JSON.stringify(one)}`);
  };
  const known = () => [...standing.values()].flatMap((one) => (one.kind === 'list' ? [one.listId] : []));
  for (const change of changes) {
    switch (change.kind) {
      case 'make list':
        put({ kind: 'list', listId: change.listId, name: change.name, holds: change.holds ?? 'words' });
        break;
      case 'rename list':
        drop(list(change.listId, change.was));
        put(list(change.listId, change.name));
        break;
      case 'remove list':
        drop(list(change.listId, change.name));
        break;
      case 'add negative':
      case 'remove negative': {
        const { text, match, place } = change;
        if (place.kind === 'list') expect(known()).toContain(place.id);
        (change.kind === 'add negative' ? put : drop)({ kind: 'negative', text, match, place });
        break;
      }
      case 'exclude product':
        put({ kind: 'exclusion', code: change.code, place: change.place });
        break;
      case 'readmit product':
        drop({ kind: 'exclusion', code: change.code, place: change.place });
        break;
      case 'add placement':
      case 'remove placement': {
        const { listId, address } = change;
        (change.kind === 'add placement' ? put : drop)({ kind: 'placement', listId, address });
        break;
      }
      case 'hang list':
      case 'take down list': {
        const { listId, campaignId } = change;
        (change.kind === 'hang list' ? put : drop)({ kind: 'hanging', listId, campaignId });
        break;
      }
      case 'set bid':
      case 'set budget':
      case 'share budget':
      case 'leave budget':
      case 'set priority':
      case 'pause keyword':
      case 'run keyword':
      case 'add campaign':
      case 'remove campaign':
      case 'add ad group':
      case 'remove ad group':
      case 'add keyword':
      case 'remove keyword':
        throw new Error(change.kind);
    }
  }
  return [...standing.values()];
}

const sorted = (one: object): object =>
  Object.fromEntries(
    Object.entries(one)
      .map(
        ([key, value]) =>
          [key, value && typeof value === 'object' ? sorted(value as object) : value] as const,
      )
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );

/** By the names of lists instead of their ids: a list that is made anew has another id. */
function byName(standing: readonly Standing[]): string[] {
  const names = new Map(standing.flatMap((one) => (one.kind === 'list' ? [[one.listId, one.name]] : [])));
  const named = (one: Standing): object => {
    if (one.kind === 'negative' && one.place.kind === 'list')
      return { ...one, place: { kind: 'list', id: names.get(one.place.id!) } };
    return 'listId' in one ? { ...one, listId: names.get(one.listId) } : one;
  };
  return standing.map((one) => JSON.stringify(sorted(named(one)))).sort();
}

test('property: what is put back makes the account stand as it did', () => {
  fc.assert(
    fc.property(accountArb, accountArb, (then, now) => {
      expect(byName(make(now, back(then, now)))).toEqual(byName(then));
    }),
  );
});
