import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { OverlapLine, OverlapsView, SeatingLine, Server } from '@/contracts/overlaps';
import { NOTHING_FRESH } from '../../testing/builders';
import { show, type Answers } from '../../testing/screen';
import { UntangleScreen } from '../untangle-screen';

const none = { count: 0, first: [] };
const aServer = (over: Partial<Server> = {}): Server => ({
  ...{ adGroupId: '1', campaignId: '1', adGroup: 'Starter', campaign: 'Hives' },
  ...{ clicks: 30, costMicros: 12_000_000, conversions: 2, valueMicros: 0 },
  ...{ expectedMicros: 7_000_000, saidAs: ['exact'], apartFrom: [] },
  ...over,
});
const stands = aServer({
  ...{ adGroupId: '2', campaignId: '2', adGroup: 'Stands', campaign: 'Stands' },
  ...{ clicks: 9, costMicros: 5_500_000, conversions: 0, expectedMicros: 12_000_000, saidAs: [] },
});
const aLine = (term: string, over: Partial<OverlapLine> = {}): OverlapLine => ({
  ...{ term, servers: [aServer(), stands], sure: 0.88, left: null },
  ...over,
});
const aView = (over: Partial<OverlapsView> = {}): OverlapsView => ({
  ...{
    days: 30,
    counts: { open: 2, left: 0 },
    elsewhereMicros: 11_000_000,
    lines: [aLine('bee hive kit'), aLine('hive box')],
  },
  ...over,
});
const weight = (terms: number, clicks: number, conversions = 0) => ({
  ...{ terms, clicks, conversions, impressions: 10 * clicks, costMicros: 500_000 * clicks, valueMicros: 0 },
});
const stop = (match: 'exact' | 'phrase', kind: 'adGroup' | 'campaign') => ({
  change: { kind: 'add negative' as const, text: 'bee hive kit', match, place: { kind, id: '2' } },
  said: 'Stop it',
});
const aWay = (over: Partial<SeatingLine> = {}): SeatingLine => ({
  ...{ where: 'ad groups', match: 'exact', changes: [stop('exact', 'adGroup')], stops: weight(1, 9) },
  ...{ alsoStops: none, also: weight(0, 0), keywords: none, hits: none },
  ...over,
});
const WAYS = [
  aWay(),
  aWay({ where: 'campaigns', changes: [stop('exact', 'campaign')] }),
  aWay({
    ...{ match: 'phrase', changes: [stop('phrase', 'adGroup')], also: weight(2, 4, 1) },
    alsoStops: { count: 2, first: ['bee hive kit sale', 'cheap bee hive kit'] },
    ...{ keywords: { count: 1, first: ['bee hive kit (broad)'] } },
    hits: { count: 1, first: ['cheap bee hive kit'] },
  }),
  aWay({ where: 'campaigns', match: 'phrase' }),
];

const showSeveral = (more: Answers = {}) =>
  show(<UntangleScreen />, {
    answers: {
      'POST untangle/look': NOTHING_FRESH,
      'GET untangle': {
        ...{ days: 30, counts: { open: 0, meant: 0, left: 0, inTray: 0 } },
        ...{ lost: { conversions: 0, unknown: 0 }, unjudged: none, lines: [] },
      },
      'GET untangle/overlaps': aView(),
      'GET untangle/overlaps/seatings': ({ query }) => ({
        ...{ term: query.term!, keeps: query.keeps!, isProtected: true, ways: WAYS },
      }),
      'POST tray': { outcomes: [] },
      ...more,
    },
    search: '?shown=several',
  });
/** The table, once its rows are there. */
async function grid() {
  const table = await screen.findByRole('grid', { name: 'Served by several' });
  await within(table).findByRole('row', { name: /bee hive kit/ });
  return table;
}
const inHand = () => screen.getByRole('region', { name: 'In hand' });
type Body = { changes: { change: { place: object; match: string }; why: string; forcedBecause: string }[] };

describe('terms that several serve', () => {
  test('say who should keep them, what they cost elsewhere, and by which keyword a place has them', async () => {
    showSeveral();
    const row = within(await grid()).getByRole('row', { name: /bee hive kit/ });
    expect(row.textContent).toContain('5.50');
    expect(screen.getByText(/11\.00 was spent where they should not be, in 30 days/)).toBeDefined();
    const servers = within(screen.getByRole('region', { name: 'Who keeps it' }));
    expect(servers.getByRole('radio', { name: /Hives · Starter has it as/ })).toHaveProperty('checked', true);
    await waitFor(() => expect(inHand().textContent).toContain('No other term that was served is touched.'));
    expect(inHand().textContent).toContain('Is left to Hives · Starter, sure to 88');
    expect(inHand().textContent).toContain('It is protected, and stays open here');
  });

  test('m turns the match type, p the place; a way that would stop another protected term is closed', async () => {
    const { user, asked } = showSeveral();
    (await grid()).focus();
    await waitFor(() => expect(inHand().textContent).toContain('No other term'));
    await user.keyboard('m');
    expect(inHand().textContent).toContain('Also stops 2 other terms: “bee hive kit sale”');
    expect(inHand().textContent).toContain('1 live keyword there says this: bee hive kit (broad)');
    expect(inHand().textContent).toContain('Would stop 1 other protected term');
    expect(within(inHand()).getByRole('button', { name: /Put in the tray/ })).toHaveProperty(
      'disabled',
      true,
    );
    await user.keyboard('{Enter}mp{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const [{ change, why, forcedBecause }] = (asked('POST tray')[0]!.body as Body).changes as [
      Body['changes'][0],
    ];
    expect([change.match, change.place]).toEqual(['exact', { kind: 'campaign', id: '2' }]);
    expect(why).toBe('untangled: “bee hive kit” is left to Hives · Starter');
    expect(forcedBecause).toBe(`${why}, where nothing stops it`);
  });

  test('a digit chooses another one to keep it, and the ways are asked anew', async () => {
    const { user, asked } = showSeveral();
    (await grid()).focus();
    await user.keyboard('2');
    await waitFor(() => expect(asked('GET untangle/overlaps/seatings').at(-1)!.query.keeps).toBe('2'));
    expect(inHand().textContent).toContain('Is left to Stands · Stands.');
  });

  test('marked ones go together, as exact negatives in the other ad groups', async () => {
    const { user, asked } = showSeveral();
    (await grid()).focus();
    await user.keyboard(' {ArrowDown} {Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const { changes } = asked('POST tray')[0]!.body as Body;
    expect(changes.map(({ change }) => [change.match, change.place])).toEqual([
      ['exact', { kind: 'adGroup', id: '2' }],
      ['exact', { kind: 'adGroup', id: '2' }],
    ]);
  });

  test('between campaigns, and from more clicks on, are asked for', async () => {
    const { user, asked } = showSeveral();
    await user.click(await screen.findByRole('combobox', { name: 'Between' }));
    await user.click(await screen.findByRole('option', { name: 'campaigns' }));
    await waitFor(() => expect(asked('GET untangle/overlaps').at(-1)!.query.between).toBe('campaigns'));
  });

  test('marked ones are passed over where a negative would shut out the exact keyword of another ad group', async () => {
    const shut = aLine('hive box', { servers: [aServer(), { ...stands, saidAs: ['exact'] }] });
    const { user, asked } = showSeveral({
      'GET untangle/overlaps': aView({ lines: [aLine('bee hive kit'), shut] }),
    });
    (await grid()).focus();
    await user.keyboard(' {ArrowDown} ');
    expect(inHand().textContent).toContain('Passed over: 1, of which another ad group');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const { changes } = asked('POST tray')[0]!.body as { changes: { change: { text: string } }[] };
    expect(changes.map(({ change }) => change.text)).toEqual(['bee hive kit']);
  });
});
