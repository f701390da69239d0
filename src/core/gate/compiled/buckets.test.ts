import fc from 'fast-check';
import { expect, test } from 'vitest';
import { createBuckets, RECORD } from './buckets';

const step = fc.record({ list: fc.nat({ max: 40 }), first: fc.nat({ max: 5 }), isAdded: fc.boolean() });

test('lists hold what was put in and not taken out, whatever moves', () => {
  fc.assert(
    fc.property(
      fc.array(fc.nat({ max: 3 }), { maxLength: 10 }),
      fc.array(step, { maxLength: 120 }),
      (lengths, steps) => {
        const buckets = createBuckets(lengths);
        const plain = new Map<number, number[]>();
        steps.forEach(({ list, first, isAdded }, i) => {
          const held = plain.get(list) ?? [];
          if (isAdded && !held.includes(first)) {
            buckets.add(list, [first, i, list, -1]);
            plain.set(list, [...held, first]);
          } else if (!isAdded) {
            buckets.remove(list, first);
            plain.set(
              list,
              held.filter((one) => one !== first),
            );
          }
        });
        for (const [list, held] of plain) {
          const { records, begins, ends } = buckets;
          const found: number[] = [];
          for (let at = begins[list] ?? 0; at < (ends[list] ?? 0); at += RECORD) {
            found.push(records[at]!);
            expect([records[at + 2], records[at + 3]]).toEqual([list, -1]);
          }
          expect(found.sort()).toEqual(held.toSorted());
        }
      },
    ),
    { numRuns: 1_000 },
  );
});
