import { describe, expect, test } from 'vitest';
import type { ListCampaign, ListLine } from '@/contracts/lists';
import { cellsOf, cellState, willHang } from './cells';
import { columnsOf, isShown, partsOf } from './columns';

const campaign = (name: string, over: Partial<ListCampaign> = {}): ListCampaign => ({
  ...{ id: name, name, status: 'live', channel: 'search', labels: [] },
  ...over,
});

describe('columns of the grid', () => {
  test.each([
    ['Hives · Starter', ['Hives', 'Starter']],
    ['DE | Search | Hives', ['DE', 'Search', 'Hives']],
    ['DE_Search_Hives', ['DE', 'Search', 'Hives']],
    ['Brand - All', ['Brand', 'All']],
    ['top-bar hives', ['top-bar hives']],
    ['·', []],
  ])('%s is taken apart', (name, parts) => {
    expect(partsOf(name)).toEqual(parts);
  });

  test('campaigns whose names begin alike stand as a group, and fold into one column', () => {
    const campaigns = ['Brand · All', 'Hives · Starter', 'Hives · Top bar'].map((name) => campaign(name));
    const open = columnsOf(campaigns, [0, 1, 2], []);
    expect(open.columns.map((c) => c.label)).toEqual(['Brand · All', 'Starter', 'Top bar']);
    expect(open.groups).toEqual([{ name: 'Hives', first: 1, length: 2, campaigns: 2, isFolded: false }]);
    const folded = columnsOf(campaigns, [0, 1, 2], ['Hives']);
    expect(folded.columns.map((c) => [c.label, c.campaigns])).toEqual([
      ['Brand · All', [0]],
      ['Hives', [1, 2]],
    ]);
  });

  test('many campaigns are folded from the start, and can be opened', () => {
    const campaigns = Array.from({ length: 100 }, (_, i) => campaign(`Group ${i % 4} · ${i}`));
    const shown = campaigns.map((_, i) => i);
    expect(columnsOf(campaigns, shown, []).columns.length).toBe(4);
    expect(columnsOf(campaigns, shown, ['Group 1']).columns.length).toBe(28);
  });

  test('filters hold together', () => {
    const one = campaign('Hives · Starter', { labels: ['uk'] });
    const all = { name: '', status: '', channel: '', label: '' };
    expect(isShown(one, all)).toBe(true);
    expect(isShown(one, { ...all, name: 'HIVES', status: 'live', channel: 'search', label: 'uk' })).toBe(
      true,
    );
    expect(isShown(one, { ...all, status: 'paused' })).toBe(false);
    expect(isShown(one, { ...all, label: 'us' })).toBe(false);
  });
});

const line = (over: Partial<ListLine>): ListLine => ({
  ...{ id: '1', name: 'Films', holds: 'words', isNew: false, entries: 1, room: 1, hungOn: [], drafted: [] },
  ...{ hurts: { campaign: [], keywords: [] } },
  ...{ rules: [], wanted: [], waits: false },
  ...over,
});

describe('cells of the grid', () => {
  const hurts = { campaign: [0, 1], keywords: [2, 1] };
  test.each([
    [line({}), [0], 'open', null],
    [line({ hungOn: [0] }), [0], 'stopped', null],
    [line({ hungOn: 'account' }), [2], 'stopped', null],
    [line({ hungOn: [0], hurts }), [0], 'hurting', null],
    [line({ hurts }), [1], 'warned', null],
    [line({ hungOn: [0], drafted: [{ campaign: 0, hang: false }] }), [0], 'drafted', null],
    [line({ hungOn: [0] }), [0, 1, 2], 'stopped', '1/3'],
    [line({ drafted: [{ campaign: null, hang: true }] }), [0, 2], 'drafted', '2/2'],
  ])('%#', (list, campaigns, icon, share) => {
    expect(cellState(cellsOf(list, 3), campaigns)).toMatchObject({ icon, share });
  });

  test('what is in the tray decides whether it will hang', () => {
    const cells = cellsOf(
      line({
        hungOn: [0, 1],
        drafted: [
          { campaign: 1, hang: false },
          { campaign: 2, hang: true },
        ],
      }),
      3,
    );
    expect([0, 1, 2].map((c) => willHang(cells, c))).toEqual([true, false, true]);
  });
});
