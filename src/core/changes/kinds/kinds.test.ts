import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anAccount, aText } from '../../gate/testing';
import { buildTermTable } from '../../mining';
import {
  cancels,
  changeKey,
  describeChange,
  doesWhat,
  inverse,
  listAlteredBy,
  listMadeBy,
  listOf,
  negativesBroughtBy,
  outcomeKey,
  rowsActedOn,
  stopsIn,
} from '../about-change';
import type { Change, ChangeKind } from '../change';
import { effectOfDraft } from '../gate/effect';
import { layGate } from '../gate/lay-gate';
import { roomAfter } from '../gate/room';
import type { RowGate, ServedRows } from '../gate/row-gate';
import { USUAL_LIMITS } from '../limits';
import { ALL_KINDS, anyChange, anyOf, NAMES } from '../testing';

const AD_GROUPS = [
  { id: 'g1', campaignId: 'c1' },
  { id: 'g2', campaignId: 'c1' },
  { id: 'g3', campaignId: 'c2' },
];

/** Every text served once in every ad group, and a product code after them. */
function served(texts: readonly string[]): ServedRows {
  const count = texts.length + 1;
  return {
    table: buildTermTable([...texts, '']),
    rowStarts: Uint32Array.from({ length: count + 1 }, (_, t) => t * 3),
    adGroupOf: Uint32Array.from({ length: count * 3 }, (_, r) => r % 3),
    adGroups: AD_GROUPS,
    codes: new Map([['lk-2041', texts.length]]),
  };
}

const anyGate = fc
  .tuple(anAccount(), fc.array(aText(), { maxLength: 5 }))
  .map(([account, texts]) => ({ gate: layGate(served(texts), account), rows: (texts.length + 1) * 3 }));
const countsOf = (gate: RowGate, rows: number) => Array.from({ length: rows }, (_, r) => gate.stopCount(r));
const isStopped = (count: number) => count > 0;

/** Both ways of each kind, as one pair. */
const OPPOSITES: Record<ChangeKind, ChangeKind> = {
  'add negative': 'remove negative',
  'remove negative': 'add negative',
  'make list': 'remove list',
  'remove list': 'make list',
  'rename list': 'rename list',
  'hang list': 'take down list',
  'take down list': 'hang list',
  'add placement': 'remove placement',
  'remove placement': 'add placement',
  'exclude product': 'readmit product',
  'readmit product': 'exclude product',
  'set bid': 'set bid',
  'set budget': 'set budget',
  'share budget': 'leave budget',
  'leave budget': 'share budget',
  'set priority': 'set priority',
  'pause keyword': 'run keyword',
  'run keyword': 'pause keyword',
  'add campaign': 'remove campaign',
  'remove campaign': 'add campaign',
  'add ad group': 'remove ad group',
  'remove ad group': 'add ad group',
  'add keyword': 'remove keyword',
  'remove keyword': 'add keyword',
};

describe.each(ALL_KINDS)('%s', (kind) => {
  test('is taken back by its opposite, which is about the same thing', () => {
    fc.assert(
      fc.property(anyOf(kind), (change) => {
        const back = inverse(change);
        expect(back.kind).toBe(OPPOSITES[kind]);
        expect(inverse(back)).toEqual(change);
        expect(changeKey(back)).toBe(changeKey(change));
        expect([cancels(change, back), cancels(back, change)]).toEqual([true, true]);
        expect(cancels(change, change)).toBe(false);
        expect(outcomeKey(back)).not.toBe(outcomeKey(change));
      }),
    );
  });

  test('reads as one line that its opposite does not share, and names what it is about', () => {
    fc.assert(
      fc.property(anyOf(kind), (change) => {
        const said = describeChange(change, NAMES);
        expect(said).toMatch(/^[A-Z][^\n]+[^.]$/);
        expect(describeChange(inverse(change), NAMES)).not.toBe(said);
        for (const named of ['text', 'name', 'code', 'address', 'match'] as const)
          if (named in change) expect(said).toContain(String(change[named as keyof Change]));
        if ('keywordId' in change) expect(said).toContain(`Keyword ${change.keywordId}`);
        if ('campaignId' in change && change.campaignId)
          expect(said).toContain(`Campaign ${change.campaignId}`);
      }),
    );
  });

  test('is said to stop where its opposite is said to open', () => {
    fc.assert(
      fc.property(anyOf(kind), (change) => {
        const opposite = { stops: 'opens', opens: 'stops', neither: 'neither' } as const;
        expect(doesWhat(inverse(change))).toBe(opposite[doesWhat(change)]);
        if (stopsIn(change)) expect(doesWhat(change)).toBe('stops');
      }),
    );
  });

  test('crosses only rows on which it acts, in the direction that it says, and reports each of them', () => {
    fc.assert(
      fc.property(anyGate, anyOf(kind), ({ gate, rows }, change) => {
        const before = countsOf(gate, rows);
        const acts = new Set(actedOn(change, gate));
        const { stopped, reopened } = gate.apply(change);
        const after = countsOf(gate, rows);
        const crossed = (to: boolean) =>
          after.flatMap((count, r) => (isStopped(count) === to && isStopped(before[r]!) !== to ? [r] : []));
        expect([...stopped].sort((a, b) => a - b)).toEqual(crossed(true));
        expect([...reopened].sort((a, b) => a - b)).toEqual(crossed(false));
        expect([...stopped, ...reopened].filter((r) => !acts.has(r))).toEqual([]);
        if (doesWhat(change) !== 'stops') expect(stopped).toEqual([]);
        if (doesWhat(change) !== 'opens') expect(reopened).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });

  test('and its opposite leave the account as it was', () => {
    fc.assert(
      fc.property(anyGate, anyOf(kind), ({ gate, rows }, change) => {
        gate.apply(inverse(change)); // so that the change has something to do
        // Whether each row is stopped, not by how many: a removal takes the twins too, and undo gives back one of them.
        const before = countsOf(gate, rows).map(isStopped);
        const { stopped, reopened } = effectOfDraft(gate, [change, inverse(change)]);
        expect([stopped, reopened]).toEqual([[], []]);
        gate.apply(change);
        gate.apply(inverse(change));
        expect(countsOf(gate, rows).map(isStopped)).toEqual(before);
      }),
      { numRuns: 300 },
    );
  });

  test('fills the place that it adds to by one, and its opposite fills none', () => {
    fc.assert(
      fc.property(anyGate, anyOf(kind), ({ gate }, change) => {
        gate.apply(inverse(change));
        const room = () => roomAfter(gate, [change], USUAL_LIMITS)[0];
        const before = room();
        gate.apply(change);
        const after = room();
        expect(after?.used).toBe(before && before.used + 1);
        expect(after?.place).toEqual(before?.place);
        if (before) expect(roomAfter(gate, [inverse(change)], USUAL_LIMITS)).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });

  test('names the list that it needs, makes or alters', () => {
    fc.assert(
      fc.property(anyOf(kind), (change) => {
        const list = listOf(change);
        const named = 'listId' in change ? change.listId : undefined;
        const place = 'place' in change && change.place.kind === 'list' ? change.place.id : undefined;
        expect(list).toBe(named ?? place ?? undefined);
        if (kind === 'make list') expect(listMadeBy(change)?.listId).toBe(list);
        else expect(listMadeBy(change)).toBeUndefined();
        expect([undefined, list]).toContain(listAlteredBy(change));
      }),
    );
  });
});

/** Rows that a change may reach; one in a list acts wherever the list hangs. */
function actedOn(change: Change, gate: RowGate): number[] {
  const list = 'place' in change && change.place.kind === 'list' ? change.place.id! : undefined;
  if (list === undefined) return rowsActedOn(change, gate);
  const hung = gate.hungOn(list);
  if (hung === 'account') return rowsActedOn(change, gate, { kind: 'account', id: null });
  return hung.flatMap((id) => rowsActedOn(change, gate, { kind: 'campaign', id }));
}

describe('all kinds together', () => {
  test('changes of one key are of one kind or its opposite', () => {
    fc.assert(
      fc.property(anyChange, anyChange, (one, other) => {
        fc.pre(changeKey(one) === changeKey(other));
        expect([one.kind, OPPOSITES[one.kind]]).toContain(other.kind);
      }),
      { numRuns: 500 },
    );
  });

  test('after any of them, a gate that is laid anew says the same of every row', () => {
    fc.assert(
      fc.property(
        anAccount(),
        fc.array(aText(), { maxLength: 5 }),
        fc.array(anyChange, { maxLength: 12 }),
        (account, texts, changes) => {
          const rows = served(texts);
          const stepwise = layGate(rows, account);
          changes.forEach((change) => stepwise.apply(change));
          const anew = layGate(rows, stepwise.shape());
          const count = (texts.length + 1) * 3;
          expect(countsOf(anew, count)).toEqual(countsOf(stepwise, count));
        },
      ),
      { numRuns: 500 },
    );
  });

  test('one of them taken back leaves the account as if it had never been applied, twins and all', () => {
    fc.assert(
      fc.property(
        anAccount(),
        fc.array(aText(), { maxLength: 5 }),
        fc.uniqueArray(anyChange, { selector: changeKey, minLength: 1, maxLength: 8 }),
        fc.nat(),
        (account, texts, changes, which) => {
          const rows = served(texts);
          const standing = layGate(rows, account);
          const taken = changes[which % changes.length]!;
          const gate = effectOfDraft(standing, changes).gate;
          const before = countsOf(gate, (texts.length + 1) * 3);
          const { stopped, reopened } = gate.restore(taken, standing);
          const without = effectOfDraft(
            standing,
            changes.filter((change) => change !== taken),
          ).gate;
          const after = countsOf(gate, (texts.length + 1) * 3);
          expect(after).toEqual(countsOf(without, (texts.length + 1) * 3));
          const crossed = (to: boolean) =>
            after.flatMap((count, r) => (isStopped(count) === to && isStopped(before[r]!) !== to ? [r] : []));
          expect([...stopped].sort((a, b) => a - b)).toEqual(crossed(true));
          expect([...reopened].sort((a, b) => a - b)).toEqual(crossed(false));
          expect(sortedShape(gate)).toEqual(sortedShape(without));
        },
      ),
      { numRuns: 1_000 },
    );
  });

  test('a list whose making is taken back is not there any more', () => {
    const standing = layGate(served([]), { campaigns: [], lists: [], negatives: [] });
    const make: Change = { kind: 'make list', listId: 'new:1', name: 'Jobs' };
    const gate = effectOfDraft(standing, [make]).gate;
    expect(gate.hasList('new:1')).toBe(true);
    gate.restore(make, standing);
    expect(gate.hasList('new:1')).toBe(false);
  });

  test('only what stops brings negatives, and what it brings is what stops', () => {
    fc.assert(
      fc.property(anyGate, anyChange, ({ gate }, change) => {
        const brought = negativesBroughtBy(change, gate);
        if (doesWhat(change) !== 'stops') expect(brought).toEqual([]);
        const place = stopsIn(change);
        const reached = new Set(
          brought.flatMap((negative) =>
            place?.kind === 'list'
              ? actedOn(change, gate)
              : gate.reached(negative, place ?? { kind: 'account', id: null }),
          ),
        );
        if (brought.length === 0) return;
        const { stopped } = gate.fork().apply(change);
        expect(stopped.filter((r) => !reached.has(r))).toEqual([]);
      }),
      { numRuns: 500 },
    );
  });
});

/** The account in a gate, whatever the order in which its parts came. */
function sortedShape(gate: RowGate) {
  const { lists, negatives, exclusions } = gate.shape();
  const sorted = <T>(all: readonly T[]) => all.map((one) => JSON.stringify(one)).sort();
  return {
    lists: sorted(
      lists.map(({ hungOn, besides, placements, ...list }) => ({
        ...{ ...list, hungOn: hungOn === 'account' ? hungOn : sorted(hungOn) },
        ...{ besides: sorted(besides ?? []), placements: sorted(placements ?? []) },
      })),
    ),
    negatives: sorted(negatives.map(({ text, match, place }) => ({ text, match, place }))),
    exclusions: sorted(exclusions ?? []),
  };
}
