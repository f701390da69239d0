import { TakenBack } from '../../compute/snapshots';

/**
 * Answers once for a key, however many ask; a failure is not kept. Where another was finding the answer and took the
 * question back, it is found for those who still wait.
 */
export async function onceFor<K extends object, T>(
  known: WeakMap<K, Promise<T>>,
  key: K,
  find: () => Promise<T>,
): Promise<T> {
  for (;;) {
    const others = known.get(key);
    if (!others) {
      const own = find();
      known.set(key, own);
      own.catch(() => known.get(key) === own && known.delete(key));
      return own;
    }
    try {
      return await others;
    } catch (error) {
      if (!(error instanceof TakenBack)) throw error;
      if (known.get(key) === others) known.delete(key);
    }
  }
}
