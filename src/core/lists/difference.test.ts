import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { effectOfDraft, layGate } from '../changes';
import { type AccountShape } from '../gate';
import { buildTermTable } from '../mining';
import {
  applyDifference,
  changesFor,
  differenceOf,
  invertDifference,
  isNoDifference,
  type ListState,
} from './index';
import { anyEntries, entryKeys } from './testing';

const RUNS = { numRuns: 1_000 };
const anyState: fc.Arbitrary<ListState> = fc.record({
  name: fc.constantFrom('Jobs', 'Films'),
  entries: anyEntries,
  placements: fc.uniqueArray(fc.constantFrom('a.example', 'b.example', 'c.example')),
  hungOn: fc.uniqueArray(fc.constantFrom('c1', 'c2', null)),
});
const plain = (state: ListState) => ({
  name: state.name,
  entries: entryKeys(state.entries),
  placements: [...state.placements].sort(),
  hungOn: [...state.hungOn].map(String).sort(),
});

describe('differences of lists', () => {
  test('applying one gives the other state, and inverting it leads back', () => {
    fc.assert(
      fc.property(anyState, anyState, (from, to) => {
        const difference = differenceOf(from, to);
        expect(plain(applyDifference(from, difference))).toEqual(plain(to));
        expect(plain(applyDifference(to, invertDifference(difference)))).toEqual(plain(from));
        expect(isNoDifference(difference)).toBe(JSON.stringify(plain(from)) === JSON.stringify(plain(to)));
      }),
      RUNS,
    );
  });

  test('its changes bring a list that hangs to the other state', () => {
    const rows = {
      table: buildTermTable([]),
      rowStarts: Uint32Array.of(0),
      adGroupOf: new Uint32Array(0),
      adGroups: [
        { id: 'g1', campaignId: 'c1' },
        { id: 'g2', campaignId: 'c2' },
      ],
    };
    fc.assert(
      fc.property(anyState, anyState, (from, to) => {
        const place = { kind: 'list' as const, id: '7' };
        const empty = { name: from.name, entries: [], placements: [], hungOn: [] };
        const account: AccountShape = { campaigns: [], lists: [{ id: '7', hungOn: [] }], negatives: [] };
        const there = effectOfDraft(layGate(rows, account), changesFor(differenceOf(empty, from), '7'));
        const { gate } = effectOfDraft(there.gate, changesFor(differenceOf(from, to), '7'));
        expect(entryKeys(gate.entriesAt(place))).toEqual(entryKeys(to.entries));
        expect(gate.placementsIn('7').sort()).toEqual([...to.placements].sort());
        const hungOn = to.hungOn.includes(null) ? 'account' : [...to.hungOn].sort();
        const hangs = gate.hungOn('7');
        expect(hangs === 'account' ? hangs : [...hangs].sort()).toEqual(hungOn);
      }),
      RUNS,
    );
  });
});
