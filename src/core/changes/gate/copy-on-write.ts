/** Collections by key, which forks share until one of them changes a collection: it is copied then, once. */
export type CopyOnWrite<Collection> = {
  get(key: string): Collection | undefined;
  /** The collection of a key, to be changed where it is; empty where there was none. */
  toChange(key: string): Collection;
  entries(): Iterable<[string, Collection]>;
  fork(): CopyOnWrite<Collection>;
};

/**
 * @param copy of a collection, or an empty one
 * @example const a = copyOnWrite((of) => new Set(of)); a.toChange('k').add(1); a.fork().toChange('k').add(2); a.get('k') // new Set([1])
 */
export function copyOnWrite<Collection>(
  copy: (of: Collection | undefined) => Collection,
  all = new Map<string, Collection>(),
): CopyOnWrite<Collection> {
  let own = new Set<string>();
  return {
    get: (key) => all.get(key),
    toChange(key) {
      if (!own.has(key)) all.set(key, copy(all.get(key)));
      own.add(key);
      return all.get(key)!;
    },
    entries: () => all,
    fork() {
      own = new Set();
      return copyOnWrite(copy, new Map(all));
    },
  };
}
