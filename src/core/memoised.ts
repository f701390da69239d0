/**
 * A function that answers the same question once: `key` tells which are the same.
 * @example memoised((n) => String(n), (n) => n + 1)(2) // 3
 */
export function memoised<Asked, Answer>(key: (asked: Asked) => string, answer: (asked: Asked) => Answer) {
  const known = new Map<string, Answer>();
  return (asked: Asked): Answer => {
    let found = known.get(key(asked));
    if (found === undefined) known.set(key(asked), (found = answer(asked)));
    return found;
  };
}
