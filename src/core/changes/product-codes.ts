/**
 * A product code as codes are compared (rules 2.5): trimmed, case aside.
 * @example codeKey(' LK-2041-S ') // 'lk-2041-s'
 */
export function codeKey(code: string): string {
  return code.trim().toLowerCase();
}

/**
 * The test for product codes of an account (rules 2.5): its pattern must match the whole trimmed raw term, case aside.
 * @param pattern a regular expression, or null where the account has no codes
 * @throws SyntaxError when the pattern is none
 * @example productCodeTest('[A-Z]{2}-[0-9]{4}')(' lk-2041 ') // true
 */
export function productCodeTest(pattern: string | null): (raw: string) => boolean {
  if (pattern === null || pattern === '') return () => false;
  const whole = new RegExp(`^(?:${pattern})$`, 'iu');
  return (raw) => whole.test(raw.trim());
}

/**
 * What is wrong with a pattern of product codes; undefined where nothing is. Patterns that are no regular expression
 * are refused, and so are patterns that repeat, without end, a group with an endless repetition or alternatives inside:
 * some texts keep such a pattern busy for years.
 * @example faultOfCodePattern('[A-Z]{2}-[0-9]+') // undefined
 */
export function faultOfCodePattern(pattern: string): string | undefined {
  try {
    productCodeTest(pattern);
  } catch {
    return 'This is no pattern that can be read: see whether each bracket is closed.';
  }
  return repeatsWithin(pattern)
    ? 'This pattern repeats what already repeats, or has alternatives, inside: some texts would keep it busy for ever. Write it without a + or * behind such brackets.'
    : undefined;
}

/** Whether a group that is repeated without end holds an endless repetition, or alternatives. */
function repeatsWithin(pattern: string): boolean {
  /** for each group that is open: whether it holds one */
  const open: boolean[] = [];
  let inClass = false;
  let last = false; // of what was read last: whether it was a group that holds one
  for (let at = 0; at < pattern.length; at++) {
    const char = pattern[at]!;
    const isEndless = /^(?:[+*]|\{\d+,\})/.test(pattern.slice(at));
    if (char === '\\') {
      at += 1;
      last = false;
    } else if (inClass) {
      inClass = char !== ']';
    } else if (char === '[') {
      inClass = true;
      last = false;
    } else if (char === '(') {
      open.push(false);
    } else if (char === ')') {
      last = open.pop() ?? false;
      if (last && open.length > 0) open[open.length - 1] = true;
    } else if (isEndless) {
      if (last) return true;
      if (open.length > 0) open[open.length - 1] = true;
    } else if (char === '|') {
      if (open.length > 0) open[open.length - 1] = true;
    } else last = false;
  }
  return false;
}
