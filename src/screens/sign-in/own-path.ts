/**
 * A path of our own that an address asked for, else the start: no address leads to another site by way of us.
 * @example ownPath('/web/sift?days=30') // '/web/sift?days=30'
 * @example ownPath('//elsewhere.example') // '/'
 */
export function ownPath(asked: string | null): string {
  const base = 'http://own.invalid';
  if (!asked || !URL.canParse(asked, base)) return '/';
  const { origin, pathname, search } = new URL(asked, base);
  return origin === base && !pathname.startsWith('//') ? pathname + search : '/';
}
