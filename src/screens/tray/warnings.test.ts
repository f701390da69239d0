import { expect, test } from 'vitest';
import { noFigures } from '@/core';
import type { Touched } from '@/contracts/common';
import type { TrayChange, TrayView } from '@/contracts/tray';
import { warningsOf } from './warnings';

const aChange = (over: Partial<TrayChange>): TrayChange => ({
  id: 1,
  kind: 'add negative',
  change: { kind: 'add negative', text: 'free', match: 'broad', place: { kind: 'account', id: null } },
  said: 'Stop “free”',
  stops: { terms: 0, ...noFigures() },
  reopens: { terms: 0, ...noFigures() },
  by: 'Maren Oakes',
  why: null,
  forcedBecause: null,
  failedBefore: null,
  endsOn: null,
  comments: [],
  ...{ touched: [], placeNote: null, action: '1' },
  reaches: null,
  heldBackBy: { count: 0, first: [] },
  ...over,
});
const aRoom = (over: Partial<TrayView['room'][number]>): TrayView['room'][number] => ({
  ...{
    place: 'list Films',
    at: { kind: 'list', id: '1' },
    what: 'negatives',
    used: 1,
    most: 2,
    couldDrop: { count: 0, first: [] },
  },
  ...over,
});
const keywords = (severity: Touched[number]['severity'], count: number, ...texts: string[]) => ({
  ...{ severity, count },
  first: texts.map((text) => ({ text, match: 'exact' as const, adGroup: 'Hives', campaign: 'Starter' })),
});

test('a change that touches nothing warns of nothing', () => {
  expect(warningsOf({ changes: [aChange({})], room: [] })).toEqual([]);
});

test('a protected term stops the sending, and is named', () => {
  const [warning] = warningsOf({
    changes: [aChange({ heldBackBy: { count: 3, first: ['free delivery', 'b'] } })],
    room: [],
  });
  expect(warning).toMatchObject({ tone: 'stop' });
  expect(warning!.text).toContain('the protected term “free delivery” and 2 more');
});

test('keywords that are shut out and keywords that are narrowed are told apart', () => {
  const texts = warningsOf({
    room: [],
    changes: [
      aChange({ touched: [keywords('shut out', 1, 'free hive'), keywords('narrowed', 4, 'free hive', 'x')] }),
    ],
  }).map((w) => w.text);
  expect(texts).toEqual([
    'A live keyword is shut out: “free hive” (exact, Hives), by “Stop “free””.',
    '4 live keywords are narrowed: “free hive” (exact, Hives), “x” (exact, Hives) and 2 more, by “Stop “free””.',
  ]);
});

test('a place that would hold more than it may stops the sending', () => {
  const room = [
    aRoom({ place: 'list Films', used: 4_003, most: 4_000 }),
    aRoom({ place: 'the whole account', used: 1_200, most: 1_200 }),
  ];
  expect(warningsOf({ changes: [], room })).toEqual([
    expect.objectContaining({ tone: 'stop', text: expect.stringContaining('Take 3 out') }),
  ]);
});

test('where a place is too full, what is needless there is named', () => {
  const couldDrop = { count: 3, first: [{ text: 'free hive', match: 'broad' as const }] };
  const [warning] = warningsOf({ changes: [], room: [aRoom({ used: 3, couldDrop })] });
  expect(warning!.text).toContain(
    'Needless there, since others stop the same: “free hive” (broad) and 2 more.',
  );
});

test('each warning has its mend: what goes out, what is needless, a reason', () => {
  const onFilms = aChange({
    id: 7,
    change: { kind: 'add negative', text: 'free', match: 'broad', place: { kind: 'list', id: '1' } },
  });
  const couldDrop = { count: 1, first: [{ text: 'free hive', match: 'broad' as const }] };
  const [full] = warningsOf({ changes: [aChange({}), onFilms], room: [aRoom({ used: 3, couldDrop })] });
  expect(full!.mends).toMatchObject([
    { do: 'take out', name: 'Take the last 1 out', changeIds: [7] },
    { do: 'drop', negatives: couldDrop.first, at: { kind: 'list', id: '1' } },
  ]);
  const held = aChange({ heldBackBy: { count: 1, first: ['free delivery'] } });
  const [stopped] = warningsOf({ changes: [held], room: [] });
  expect(stopped!.mends.map((mend) => mend.do)).toEqual(['take out', 'give a reason']);
});
