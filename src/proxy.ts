import { NextResponse, type NextRequest } from 'next/server';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Lets in only requests to a name that is ours (so that no foreign name can be pointed at loopback), and writes only
 * from our own pages.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get('host') ?? '';
  const name = host.replace(/:\d+$/, '');
  if (![...LOOPBACK, process.env.GATEPOST_HOST, process.env.GATEPOST_NAME].includes(name)) {
    return refuse('This name is not Gate Post’s. Set GATEPOST_NAME to the name it is reached by.');
  }
  if (request.method !== 'GET' && request.method !== 'HEAD') {
    const origin = request.headers.get('origin');
    if (origin === null || hostOf(origin) !== host)
      return refuse('Writes are taken from Gate Post’s own pages only.');
  }
  return NextResponse.next();
}

function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}

function refuse(error: string): NextResponse {
  return NextResponse.json({ error }, { status: 403 });
}
