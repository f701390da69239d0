import { NextResponse, type NextRequest } from 'next/server';
import { refusalOf } from './let-in';

/** The header by which a page is told the word that lets its inline scripts run. */
export const NONCE_HEADER = 'x-nonce';

/** The header by which a page is told its own path, with what stands behind the `?`. */
export const PATH_HEADER = 'x-path';

/** Lets in only what `refusalOf` does not refuse, and tells the browser what a page may run. */
export function proxy(request: NextRequest): NextResponse {
  const error = refusalOf(request);
  if (error !== undefined) return NextResponse.json({ error }, { status: 403 });
  const nonce = btoa(crypto.randomUUID());
  const policy = policyOf(nonce);
  const headers = new Headers(request.headers);
  headers.set(NONCE_HEADER, nonce);
  headers.set(PATH_HEADER, request.nextUrl.pathname + request.nextUrl.search);
  headers.set('content-security-policy', policy); // from here Next takes the nonce for the scripts that it writes
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return response;
}

/** Scripts run from our own files, and inline with the nonce of this one answer; nothing comes from elsewhere. */
function policyOf(nonce: string): string {
  return [
    "default-src 'self'",
    // Development evaluates code.
    `script-src 'self' 'nonce-${nonce}'${process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : ''}`,
    "worker-src 'self' blob:", // a workbook is packed by a worker of its package
    "style-src 'self' 'unsafe-inline'", // rows of a long table are placed by the attribute `style`
    "img-src 'self' data:",
    "connect-src 'self'",
    "object-src 'none'",
    "frame-ancestors 'none'",
    "form-action 'self'",
    "base-uri 'none'",
  ].join('; ');
}

/**
 * Routes of the API ask for themselves (`lettingIn`): a body that passes the proxy is held in memory, and cut at 10 MB
 * without a word; and each pass takes as long as the bare route behind it.
 */
export const config = {
  matcher: '/((?!api/).*)',
};
