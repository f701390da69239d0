const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Why a request is not let in, or undefined: it must come to a name that is ours (so that no foreign name can be pointed
 * at loopback), and a write from one of our own pages.
 */
export function refusalOf({ method, headers }: Pick<Request, 'method' | 'headers'>): string | undefined {
  const host = headers.get('host') ?? '';
  const name = host.replace(/:\d+$/, '');
  if (![...LOOPBACK, process.env.GATEPOST_HOST, process.env.GATEPOST_NAME].includes(name))
    return 'This name is not Gate Post’s. Set GATEPOST_NAME to the name it is reached by.';
  if (method === 'GET' || method === 'HEAD') return undefined;
  const origin = headers.get('origin');
  return origin === null || hostOf(origin) !== host
    ? 'Writes are taken from Gate Post’s own pages only.'
    : undefined;
}

function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}
