import 'server-only';

/** The origin of Gate Post as the browser knows it; the name was held against ours before (`refusalOf`). */
export function ownOrigin(headers: Headers): string {
  return `${process.env.GATEPOST_TLS === '1' ? 'https' : 'http'}://${headers.get('host')}`;
}
