export function runTests(_flags: string[]): Promise<number> {
  return Promise.resolve(0);
}
