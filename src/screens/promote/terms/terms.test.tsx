import { screen, waitFor, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { PlanRequest } from '@/contracts/promotion';
import { aWeight } from '../../testing/builders';
import { aPlan, aView, grid, inHand, lines, showPromote } from '../testing';

test('terms to promote stand with their figures, their target and what promoting them makes', async () => {
  showPromote();
  const row = within(await grid()).getByRole('row', { name: /bee hive kit/ });
  expect(row.textContent).toContain('Hives');
  expect(row.textContent).toContain('20.00');
  expect(row.textContent).toContain('3 + 2');
  expect(within(row).getByRole('img', { name: '97 %' })).toBeDefined();
});

test('the plan in hand shows the seats within each other, the bid with its reckoning, and what goes on', async () => {
  showPromote();
  (await grid()).focus();
  await waitFor(() => expect(inHand().textContent).toContain('Makes 3 keywords and 2 negatives.'));
  const broad = within(inHand()).getByRole('region', { name: 'broad seat' });
  const phrase = within(broad).getByRole('region', { name: 'phrase seat' });
  expect(within(phrase).getByRole('region', { name: 'exact seat' }).textContent).toContain(
    'gets 1 query, 12 clicks',
  );
  expect(inHand().textContent).toContain('A click cost 0.50 × 18.00 target ÷ 21.40 CPA.');
  expect(inHand().textContent).toContain('Starter goes on serving it: 1 query, 28 clicks');
});

test('digits take parts out, Enter puts the rest in the tray, with its undo', async () => {
  const { user, asked } = showPromote();
  (await grid()).focus();
  await waitFor(() => expect(inHand().textContent).toContain('Makes 3'));
  await user.keyboard('2');
  await waitFor(() =>
    expect(within(inHand()).getByRole('checkbox', { name: /phrase keyword/ })).toHaveProperty(
      'checked',
      false,
    ),
  );
  await user.keyboard('{Enter}');
  await waitFor(() => expect(asked('POST promotion/draft')).toHaveLength(1));
  expect(asked('POST promotion/draft')[0]!.body).toEqual({
    ...{ terms: [{ term: 'bee hive kit', group: 'group Hives' }], without: ['keyword phrase'] },
  });
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [7, 8] }));
});

test('another opening bid is planned with; one that is none is refused beside it', async () => {
  const { user, asked } = showPromote();
  await grid();
  const field = await screen.findByRole('textbox', { name: 'Opening bid' });
  await user.clear(field);
  await user.type(field, 'much{Enter}');
  expect(await screen.findByText('Give the bid as an amount above 0.')).toBeDefined();
  await user.clear(field);
  await user.type(field, '0.60{Enter}');
  await waitFor(() =>
    expect(asked('POST promotion/plan').at(-1)!.body).toMatchObject({ bidMicros: 600_000 }),
  );
});

test('x: not for this, and back', async () => {
  const left = { why: 'not for this', until: null, by: 'Ilse Brandow', at: '2026-11-25T10:00:00Z' };
  const { user, asked } = showPromote('', {
    'POST untangle/left': {},
    'DELETE untangle/left': { why: '', until: null },
  });
  (await grid()).focus();
  await user.keyboard('x');
  await waitFor(() =>
    expect(asked('POST untangle/left')[0]!.body).toMatchObject({
      ...{ kind: 'promotion', key: 'group Hives → bee hive kit', why: 'not for this', until: null },
    }),
  );
  const other = showPromote('?pile=left', {
    'GET promotion': aView({ lines: [{ ...lines[0]!, left }] }),
    'DELETE untangle/left': { why: 'not for this', until: null },
  });
  const tables = await screen.findAllByRole('grid', { name: 'Terms to promote' });
  await within(tables.at(-1)!).findByRole('row', { name: /bee hive kit/ });
  tables.at(-1)!.focus();
  await other.user.keyboard('x');
  await waitFor(() => expect(other.asked('DELETE untangle/left')).toHaveLength(1));
});

test('marked ones are planned together, a kind of part taken out for all', async () => {
  const many = aPlan({
    ...{ parts: [], bid: null, terms: 2, keywords: 6, negatives: 4, stays: [] },
    missing: [{ group: 'Courses', matches: ['exact', 'phrase'] }],
    obstacles: { count: 4, first: ['No exact keyword “x” in Hives · Starter: it is stopped by “y”.'] },
    nowhere: { ...aWeight({ terms: 1, conversions: 1 }), first: ['odd query'] },
  });
  const { user, asked } = showPromote('', { 'POST promotion/plan': many });
  (await grid()).focus();
  await user.keyboard(' {ArrowDown} ');
  await waitFor(() =>
    expect(inHand().textContent).toContain('Makes 6 keywords and 4 negatives; the seats get 12 clicks'),
  );
  expect(inHand().textContent).toContain('Courses has no exact and no phrase seat');
  expect(inHand().textContent).toContain('it is stopped by “y”.');
  expect(inHand().textContent).toContain('3 more parts');
  expect(inHand().textContent).toContain('served by no seat (1 conversion): “odd query”.');
  await user.keyboard('6{Enter}');
  await waitFor(() => expect(asked('POST promotion/draft')).toHaveLength(1));
  const { terms, without } = asked('POST promotion/draft')[0]!.body as PlanRequest;
  expect([terms.map(({ term }) => term), without]).toEqual([
    ['bee hive kit', 'hive box'],
    ['negative source'],
  ]);
});

test('filters ask anew, and what they leave can be saved', async () => {
  const { user, asked } = showPromote();
  await grid();
  const choose = async (label: string, option: string) => {
    await user.click(screen.getByRole('combobox', { name: label }));
    await user.click(await screen.findByRole('option', { name: option }));
  };
  await choose('Conversions', '3 conversions');
  await choose('Against the target', 'within the target');
  await choose('Group', 'Courses');
  await choose('Campaign', 'Hives');
  await choose('Searches a month', 'searched 100 times or less');
  await waitFor(() =>
    expect(asked('GET promotion').at(-1)!.query).toMatchObject({
      ...{ conversions: '3', reach: 'within', group: 'campaign 2', campaign: '1', searchesTo: '100' },
    }),
  );
  expect(screen.getByRole('link', { name: 'CSV' }).getAttribute('href')).toContain(
    '/api/web/promotion/sheet?pile=open&reach=within&conversions=3&group=campaign+2&campaign=1&searchesTo=100&as=csv',
  );
});

test('where a group has no seat, the plan leads to where they are made', async () => {
  const { user, search } = showPromote();
  (await grid()).focus();
  await user.keyboard('{ArrowDown}{ArrowDown}');
  await user.click(await within(inHand()).findByRole('button', { name: 'Choose or make them' }));
  expect([search().get('shown'), search().get('seatsOf')]).toEqual(['seats', 'campaign 2']);
  expect(inHand().textContent).toContain('Courses');
});
