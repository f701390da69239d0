import { LRUCache } from 'lru-cache';
import type * as v from 'valibot';
import { TakenBack } from './taken-back';

/**
 * Caches over a snapshot, a workbench, or another answer that never changes: what is derived from such a source is made
 * when it is first asked for, kept as long as the source, and let go of with it.
 */

/**
 * One value for a source.
 * @example const shape = derivedFrom((bench: Workbench) => bench.draft.gate.shape()); shape(bench) === shape(bench) // true
 */
export function derivedFrom<Source extends object, Value>(
  make: (source: Source) => Value,
): (source: Source) => Value {
  const known = new WeakMap<Source, { value: Value }>();
  return (source) => {
    let kept = known.get(source);
    if (!kept) known.set(source, (kept = { value: make(source) }));
    return kept.value;
  };
}

/** What has been derived from a source before, and how: so that a source that grew from another starts from its values. */
type Growing = { grow(next: object, from: object): void };
const growing: Growing[] = [];

/**
 * One value for a source, made from the value of the source that it grew from, where there was one.
 * @param make before: the value of the source from which this one grew; undefined where it has to be made from the start
 * @example const told = derivedOnward((open: Open, before?: Lines) => [...(before ?? []), ...tell(open, before?.length ?? 0)])
 */
export function derivedOnward<Source extends object, Value>(
  make: (source: Source, before: Value | undefined) => Value,
): (source: Source) => Value {
  const known = new WeakMap<object, { value: Value }>();
  const befores = new WeakMap<object, { value: Value }>();
  growing.push({
    grow(next, from) {
      const before = known.get(from) ?? befores.get(from);
      if (before) befores.set(next, before);
    },
  });
  return (source) => {
    let kept = known.get(source);
    if (!kept) {
      known.set(source, (kept = { value: make(source, befores.get(source)?.value) }));
      befores.delete(source);
    }
    return kept.value;
  };
}

/** Tells the caches above that a source grew from another: whatever was derived from that one may be built on. */
export function noteGrowth(next: object, from: object): void {
  for (const cache of growing) cache.grow(next, from);
}

/**
 * One value for a source and a key.
 * @param key tells which questions are the same; `keyBySchema` makes one in which no part is left out
 * @param most values that are kept for a source; the least recently used goes first
 */
export function derivedByKey<Source extends object, Asked, Value>(
  key: (asked: Asked) => string,
  make: (source: Source, asked: Asked) => Value,
  most = Infinity,
): (source: Source, asked: Asked) => Value {
  const valuesOf = derivedFrom((_: Source) =>
    most === Infinity
      ? new Map<string, { value: Value }>()
      : new LRUCache<string, { value: Value }>({ max: most }),
  );
  return (source, asked) => {
    const values = valuesOf(source);
    const name = key(asked);
    let kept = values.get(name);
    if (!kept) values.set(name, (kept = { value: make(source, asked) }));
    return kept.value;
  };
}

/**
 * One value for a source that takes time to make: found once, however many ask; a failure is not kept. Where another was
 * finding it and took the question back, it is found for those who still wait.
 */
export function derivedLater<Source extends object, Value>(): (
  source: Source,
  find: () => Promise<Value>,
) => Promise<Value> {
  const known = new WeakMap<Source, Promise<Value>>();
  return async (source, find) => {
    for (;;) {
      const others = known.get(source);
      if (!others) {
        const own = find();
        known.set(source, own);
        own.catch(() => known.get(source) === own && known.delete(source));
        return own;
      }
      try {
        return await others;
      } catch (error) {
        if (!(error instanceof TakenBack)) throw error;
        if (known.get(source) === others) known.delete(source);
      }
    }
  };
}

/**
 * A key of every part that a schema names, so that a filter which is added to the schema is in the key too.
 * @example keyBySchema(v.object({ a: v.number(), b: v.number() }), { b: 2, a: 1 }) // '[1,2]'
 */
export function keyBySchema<Entries extends v.ObjectEntries>(
  { entries }: { entries: Entries },
  value: { [Name in keyof Entries]?: unknown },
): string {
  return JSON.stringify(Object.keys(entries).map((name) => value[name] ?? null));
}
