/** Where a list hangs, in words. */
export function whereItHangs(
  hungOn: readonly string[] | 'account',
  nameOf: (campaignId: string) => string,
): string {
  if (hungOn === 'account') return 'hangs on the whole account';
  if (hungOn.length === 0) return 'hangs nowhere, so it stops nothing';
  const some = hungOn.slice(0, 3).map(nameOf).join(', ');
  const more = hungOn.length > 3 ? ` and ${hungOn.length - 3} more` : '';
  return `hangs on ${hungOn.length} ${hungOn.length === 1 ? 'campaign' : 'campaigns'}: ${some}${more}`;
}
