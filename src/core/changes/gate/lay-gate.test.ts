import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileAccountGate, type AccountShape, type Place, type PlacedNegative } from '../../gate';
import { aNegative, aText } from '../../gate/testing';
import { buildTermTable } from '../../mining';
import { inverse, negativesBroughtBy } from '../about-change';
import type { Change } from '../change';
import { layGate } from './lay-gate';
import type { ServedRows } from './row-gate';
import { effectOfDraft, extendDraft, protectedHits } from './effect';

const AD_GROUPS = [
  { id: 'g1', campaignId: 'c1' },
  { id: 'g2', campaignId: 'c1' },
  { id: 'g3', campaignId: 'c2' },
];
const CAMPAIGNS = [
  { id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] },
  { id: 'c2', adGroups: [{ id: 'g3' }] },
];

/** Every text served once in every ad group. */
function rowsOf(texts: string[]): ServedRows {
  return {
    table: buildTermTable(texts),
    rowStarts: Uint32Array.from({ length: texts.length + 1 }, (_, t) => t * 3),
    adGroupOf: Uint32Array.from({ length: texts.length * 3 }, (_, r) => r % 3),
    adGroups: AD_GROUPS,
  };
}

const places = fc.constantFrom<Place>(
  { kind: 'account', id: null },
  { kind: 'campaign', id: 'c1' },
  { kind: 'adGroup', id: 'g3' },
  { kind: 'list', id: 'l1' },
);
const additions = fc
  .tuple(aNegative(2), places)
  .map(([negative, place]): Change => ({ kind: 'add negative', ...negative, place }));
const hangings = fc
  .constantFrom('c1', 'c2', null)
  .map((campaignId): Change => ({ kind: 'hang list', listId: 'l1', campaignId }));
const someChange = fc.oneof(
  { weight: 3, arbitrary: additions },
  hangings,
  additions.map(inverse),
  hangings.map(inverse),
);

/** The account after the changes, told plainly: sets of negatives and of campaigns. */
function accountAfter(changes: readonly Change[]): AccountShape {
  let negatives: PlacedNegative[] = [];
  const hung = new Set<string | null>();
  for (const [i, change] of changes.entries()) {
    if (change.kind === 'add negative') negatives.push({ ...change, id: `n${i}` });
    if (change.kind === 'remove negative') {
      const key = (n: { text: string; match: string; place: Place }) =>
        `${n.text.replace(/['?!]/g, '')}|${n.match}|${n.place.kind}`;
      negatives = negatives.filter((n) => key(n) !== key(change));
    }
    if (change.kind === 'hang list') hung.add(change.campaignId);
    if (change.kind === 'take down list') hung.delete(change.campaignId);
  }
  const besides = [...hung].filter((id) => id !== null);
  const hungOn = hung.has(null) ? 'account' : besides;
  return { campaigns: CAMPAIGNS, lists: [{ id: 'l1', hungOn, besides }], negatives };
}

const emptyAccount: AccountShape = { campaigns: CAMPAIGNS, lists: [{ id: 'l1', hungOn: [] }], negatives: [] };

describe('the gate over served rows', () => {
  test('after any changes, counts for each row what a gate compiled anew names', () => {
    fc.assert(
      fc.property(
        fc.array(aText(), { maxLength: 6 }),
        fc.array(someChange, { maxLength: 12 }),
        (texts, changes) => {
          const gate = layGate(rowsOf(texts), emptyAccount);
          changes.forEach((change) => gate.apply(change));
          const plain = compileAccountGate(accountAfter(changes));
          texts.forEach((text, t) =>
            AD_GROUPS.forEach((group, g) =>
              expect(gate.stopCount(t * 3 + g)).toBe(plain.stoppers(text, group.id).length),
            ),
          );
        },
      ),
      { numRuns: 1_500 },
    );
  });

  test('an account laid at once counts as one whose changes came one after another', () => {
    fc.assert(
      fc.property(
        fc.array(aText(), { maxLength: 6 }),
        fc.array(someChange, { maxLength: 12 }),
        (texts, changes) => {
          const served = rowsOf(texts);
          const stepwise = layGate(served, emptyAccount);
          changes.forEach((change) => stepwise.apply(change));
          const atOnce = layGate(served, stepwise.shape());
          for (let r = 0; r < texts.length * 3; r++) expect(atOnce.stopCount(r)).toBe(stepwise.stopCount(r));
        },
      ),
      { numRuns: 1_000 },
    );
  });

  test('a fork goes its own way', () => {
    const account = layGate(rowsOf(['free hive']), emptyAccount);
    const fork = account.fork();
    fork.apply({ kind: 'hang list', listId: 'l1', campaignId: 'c1' });
    fork.apply({ kind: 'add negative', text: 'free', match: 'broad', place: { kind: 'list', id: 'l1' } });
    expect([0, 1, 2].map((r) => fork.stopCount(r))).toEqual([1, 1, 0]);
    expect([0, 1, 2].map((r) => account.stopCount(r))).toEqual([0, 0, 0]);
    expect(account.entriesAt({ kind: 'list', id: 'l1' })).toEqual([]);
    expect(account.hungOn('l1')).toEqual([]);
  });

  test('what a negative reaches is what it matches within its place, open or not', () => {
    const gate = layGate(rowsOf(['free hive', 'hive']), emptyAccount);
    const hive = { text: 'hive', match: 'broad' } as const;
    gate.apply({ kind: 'add negative', text: 'free', match: 'broad', place: { kind: 'adGroup', id: 'g1' } });
    const inC1 = gate.reached(hive, { kind: 'campaign', id: 'c1' });
    expect(inC1).toEqual([0, 1, 3, 4]);
    expect(inC1).toEqual(gate.within(gate.matched(hive), { kind: 'campaign', id: 'c1' }));
    expect(gate.reached(hive, { kind: 'list', id: 'l1' })).toEqual([]);
    expect(gate.reached(hive, { kind: 'account', id: null })).toEqual(gate.matched(hive));
    expect(inC1.map((r) => gate.stopCount(r))).toEqual([1, 0, 0, 0]);
  });
});

describe('the effect of a draft', () => {
  test('counts each row once, and its steps add up to it', () => {
    fc.assert(
      fc.property(
        fc.array(aText(), { maxLength: 6 }),
        fc.array(someChange, { maxLength: 6 }),
        fc.array(someChange, { maxLength: 6 }),
        (texts, before, drafted) => {
          const account = layGate(rowsOf(texts), accountAfter(before));
          const effect = effectOfDraft(account, drafted);
          const gateBefore = compileAccountGate(accountAfter(before));
          const gateAfter = compileAccountGate(accountAfter([...before, ...drafted]));
          const all = texts.flatMap((text, t) =>
            AD_GROUPS.map((g, i) => ({ row: t * 3 + i, text, id: g.id })),
          );
          const open = (gate: typeof gateBefore, r: { text: string; id: string }) =>
            gate.stoppers(r.text, r.id).length === 0;
          expect(effect.stopped).toEqual(
            all.filter((r) => open(gateBefore, r) && !open(gateAfter, r)).map((r) => r.row),
          );
          expect(effect.reopened).toEqual(
            all.filter((r) => !open(gateBefore, r) && open(gateAfter, r)).map((r) => r.row),
          );
          const net = effect.steps.reduce((sum, s) => sum + s.stopped.length - s.reopened.length, 0);
          expect(net).toBe(effect.stopped.length - effect.reopened.length);
        },
      ),
      { numRuns: 1_500 },
    );
  });

  test('laid in two parts is the same draft as laid at once', () => {
    fc.assert(
      fc.property(
        fc.array(aText(), { maxLength: 6 }),
        fc.array(someChange, { maxLength: 4 }),
        fc.array(someChange, { maxLength: 4 }),
        fc.array(someChange, { maxLength: 4 }),
        (texts, before, first, more) => {
          const account = layGate(rowsOf(texts), accountAfter(before));
          const { gate, ...atOnce } = effectOfDraft(account, [...first, ...more]);
          const draft = effectOfDraft(account, first);
          const { gate: extended, ...inParts } = extendDraft(account, draft, more);
          expect(inParts).toEqual(atOnce);
          for (let r = 0; r < texts.length * 3; r++) expect(extended.stopCount(r)).toBe(gate.stopCount(r));
          const again = effectOfDraft(account, first);
          for (let r = 0; r < texts.length * 3; r++)
            expect(draft.gate.stopCount(r)).toBe(again.gate.stopCount(r));
        },
      ),
      { numRuns: 1_000 },
    );
  });

  test('a change followed by its inverse has no effect', () => {
    const account = layGate(rowsOf(['free hive', 'bee']), emptyAccount);
    const change: Change = {
      kind: 'add negative',
      text: 'free',
      match: 'broad',
      place: { kind: 'account', id: null },
    };
    expect(effectOfDraft(account, [change, inverse(change)])).toMatchObject({ stopped: [], reopened: [] });
  });

  test('protected terms are hit by a negative itself and by the entries of a list that is hung', () => {
    const gate = layGate(rowsOf([]), emptyAccount);
    const shelter = buildTermTable(['free delivery hive', 'bee suit']);
    const add: Change = {
      kind: 'add negative',
      text: 'free',
      match: 'broad',
      place: { kind: 'list', id: 'l1' },
    };
    const hang: Change = { kind: 'hang list', listId: 'l1', campaignId: 'c1' };
    expect(protectedHits(negativesBroughtBy(add, gate), shelter)).toEqual([0]);
    expect(protectedHits(negativesBroughtBy(hang, gate), shelter)).toEqual([]);
    gate.apply(add);
    expect(protectedHits(negativesBroughtBy(hang, gate), shelter)).toEqual([0]);
    expect(protectedHits(negativesBroughtBy(inverse(hang), gate), shelter)).toEqual([]);
  });
});

describe('product exclusions over the rows', () => {
  const served: ServedRows = {
    table: buildTermTable(['', 'lk 2041 hive']),
    rowStarts: Uint32Array.of(0, 2, 3),
    adGroupOf: Uint32Array.of(0, 1, 0),
    adGroups: [
      { id: 'g1', campaignId: 'c1' },
      { id: 'g2', campaignId: 'c2' },
    ],
    codes: new Map([['lk-2041', 0]]),
  };
  const place = { kind: 'campaign', id: 'c1' } as const;
  const exclude = { kind: 'exclude product', code: 'LK-2041', place } as const;
  const shape = { campaigns: [], lists: [], negatives: [] };

  test('stop the code where they stand, and nothing that only holds its letters', () => {
    const gate = layGate(served, shape);
    expect(gate.apply(exclude)).toEqual({ stopped: [0], reopened: [] });
    expect([0, 1, 2].map((r) => gate.stopCount(r))).toEqual([1, 0, 0]);
    expect(gate.excludes(' lk-2041', place)).toBe(true);
    expect(gate.entriesAt(place)).toEqual([]);
    expect(gate.apply(exclude)).toEqual({ stopped: [], reopened: [] });
  });

  test('are taken back by their opposite, in a fork alone', () => {
    const gate = layGate(served, { ...shape, exclusions: [{ code: 'LK-2041', place }] });
    const fork = gate.fork();
    expect(fork.apply({ ...exclude, kind: 'readmit product' })).toEqual({ stopped: [], reopened: [0] });
    expect(gate.stopCount(0)).toBe(1);
    expect(fork.shape().exclusions).toEqual([]);
  });

  test('no keyword negative stops a code', () => {
    const gate = layGate(served, shape);
    expect(gate.matched({ text: 'lk', match: 'broad' })).toEqual([2]);
  });
});
