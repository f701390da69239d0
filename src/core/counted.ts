const NUMBER = new Intl.NumberFormat('en', { maximumFractionDigits: 0 });

/**
 * A number and what is counted, for sentences.
 * @example counted(1, 'term') // '1 term'
 */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${NUMBER.format(count)} ${count === 1 ? one : many}`;
}
