import { grown } from '../../columns';

/** Integers in a record. */
export const RECORD = 4;

/** Lists of records, numbered from 0; each stands in one piece, so that going through it is going straight on. */
export type Buckets = {
  /** Adds a record to a list. */
  add(list: number, record: readonly [number, number, number, number]): void;
  /** Takes the record that begins with a number out of a list, if it is there; the others may change their order. */
  remove(list: number, first: number): void;
  /** List l is records[begins[l] .. ends[l]). Other arrays may stand here after a change. */
  readonly records: Int32Array;
  readonly begins: Int32Array;
  readonly ends: Int32Array;
};

/** @param lengths of lists that are about to be filled, in records: these need not move while they are */
export function createBuckets(lengths: ArrayLike<number>): Buckets {
  const lists = Math.max(16, lengths.length);
  /** Where the room of a list ends. */
  let limits = new Int32Array(lists);
  let used = 0; // of records
  const buckets = {
    records: new Int32Array(0),
    begins: new Int32Array(lists),
    ends: new Int32Array(lists),
    add(list, record) {
      if (list >= buckets.begins.length) {
        buckets.begins = grown(buckets.begins, 2 * list);
        buckets.ends = grown(buckets.ends, 2 * list);
        limits = grown(limits, 2 * list);
      }
      if (buckets.ends[list] === limits[list]) move(list);
      buckets.records.set(record, buckets.ends[list]);
      buckets.ends[list]! += RECORD;
    },
    remove(list, first) {
      const { records, begins, ends } = buckets;
      for (let at = begins[list]!; at < ends[list]!; at += RECORD) {
        if (records[at] !== first) continue;
        ends[list]! -= RECORD;
        records.copyWithin(at, ends[list]!, ends[list]! + RECORD);
        return;
      }
    },
  } satisfies Buckets;
  for (let list = 0; list < lengths.length; list++) {
    buckets.begins[list] = buckets.ends[list] = used;
    used += RECORD * lengths[list]!;
    limits[list] = used;
  }
  buckets.records = new Int32Array(Math.max(RECORD * 16, used));

  /** Moves a list to the end, with twice its room. What it leaves behind stays unused: no more than all lists take. */
  function move(list: number) {
    const { begins, ends } = buckets;
    const [begin, end] = [begins[list]!, ends[list]!];
    const room = Math.max(RECORD, 2 * (end - begin));
    if (used + room > buckets.records.length) buckets.records = grown(buckets.records, 2 * (used + room));
    buckets.records.copyWithin(used, begin, end);
    begins[list] = used;
    ends[list] = used + end - begin;
    limits[list] = used += room;
  }

  return buckets;
}
