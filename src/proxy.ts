import { NextResponse, type NextRequest } from 'next/server';
import { refusalOf } from './let-in';

/** Lets in only what `refusalOf` does not refuse. */
export function proxy(request: NextRequest): NextResponse {
  const error = refusalOf(request);
  return error === undefined ? NextResponse.next() : NextResponse.json({ error }, { status: 403 });
}

/**
 * Routes of the API ask for themselves (`lettingIn`): a body that passes the proxy is held in memory, and cut at 10 MB
 * without a word; and each pass takes as long as the bare route behind it.
 */
export const config = {
  matcher: '/((?!api/).*)',
};
