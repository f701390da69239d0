/** The letters by which trays are called in the order in which they were sent. @example letterOf(27) // 'AB' */
export function letterOf(index: number): string {
  const last = String.fromCharCode(65 + (index % 26));
  return index < 26 ? last : letterOf(Math.floor(index / 26) - 1) + last;
}
