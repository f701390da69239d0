const NUMBER = new Intl.NumberFormat('en');

/** A number and what is counted, for sentences. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${NUMBER.format(count)} ${count === 1 ? one : many}`;
}
