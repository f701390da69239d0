const NUMBER = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });
const PLURAL = new Intl.PluralRules('en');
const LIST = new Intl.ListFormat('en-GB', { type: 'conjunction' });

/**
 * A number and what is counted, for sentences.
 * @example counted(1, 'term') // '1 term'
 */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${NUMBER.format(count)} ${PLURAL.select(count) === 'one' ? one : many}`;
}

/**
 * Names in a sentence, with how many there are beyond those that are given.
 * @param names those that are named
 * @param count how many there are, named or not
 * @example listed(['ants', 'bees']) // 'ants and bees'
 * @example listed(['ants', 'bees'], 7) // 'ants, bees and 5 more'
 */
export function listed(names: readonly string[], count = names.length): string {
  const more = count - names.length;
  return LIST.format(more > 0 ? [...names, `${NUMBER.format(more)} more`] : names);
}
