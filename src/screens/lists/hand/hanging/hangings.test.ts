import { describe, expect, test } from 'vitest';
import type { ListLine, ListsView } from '@/contracts/lists';
import { hangingsToMake, hungAfterTray } from './hangings';

const line = (id: string, over: Partial<ListLine> = {}): ListLine => ({
  ...{ id, name: id, holds: 'words', isNew: false, entries: 1, room: 1, hungOn: [], drafted: [] },
  ...{ hurts: { campaign: [], keywords: [] }, rules: [], wanted: [], waits: false },
  ...over,
});
const viewOf = (...lists: ListLine[]): ListsView => ({
  window: { from: '2026-11-01', to: '2026-11-20', days: 20 },
  campaigns: ['c0', 'c1', 'c2'].map((id) => ({
    id,
    name: id,
    status: 'live',
    channel: 'search',
    labels: [],
  })),
  ...{ lists, accountWide: { used: 0, most: 1 }, waiting: [], outside: [] },
});

describe('where a list hangs once the tray is sent', () => {
  test('the tray adds to what is sent, and takes from it', () => {
    const list = line('a', {
      hungOn: [0, 1],
      drafted: [
        { campaign: 1, hang: false },
        { campaign: 2, hang: true },
      ],
    });
    expect([...hungAfterTray(viewOf(list), list)]).toEqual(['c0', 'c2']);
  });

  test('the whole account is told apart from its campaigns', () => {
    const list = line('a', { hungOn: 'account', drafted: [{ campaign: null, hang: false }] });
    expect(hungAfterTray(viewOf(list), list).size).toBe(0);
    expect([...hungAfterTray(viewOf(list), line('b', { hungOn: 'account' }))]).toEqual([null]);
  });
});

describe('the changes that marked cells come to', () => {
  const [a, b, everywhere] = [line('a', { hungOn: [0] }), line('b'), line('e', { hungOn: 'account' })];
  const view = viewOf(a, b, everywhere);

  test('what is so already is left out', () => {
    expect(hangingsToMake(view, [a, b], ['c0', 'c1'], true)).toEqual([
      { listId: 'a', campaignId: 'c1' },
      { listId: 'b', campaignId: 'c0' },
      { listId: 'b', campaignId: 'c1' },
    ]);
    expect(hangingsToMake(view, [a, b], ['c0', 'c1'], false)).toEqual([{ listId: 'a', campaignId: 'c0' }]);
  });

  test('a list on the whole account is neither hung on a campaign nor taken down from one', () => {
    expect(hangingsToMake(view, [everywhere], ['c0'], true)).toEqual([]);
    expect(hangingsToMake(view, [everywhere], ['c0'], false)).toEqual([]);
  });
});
