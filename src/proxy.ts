import { NextResponse, type NextRequest } from 'next/server';
import { refusalOf } from './let-in';

/** Lets in only what `refusalOf` does not refuse. */
export function proxy(request: NextRequest): NextResponse {
  const error = refusalOf(request);
  return error === undefined ? NextResponse.next() : NextResponse.json({ error }, { status: 403 });
}

/**
 * What takes files asks for itself (`takesFiles`): bodies that pass the proxy are held in memory, and cut at 10 MB
 * without a word.
 */
export const config = {
  matcher: '/((?!api/[^/]+/intake$|api/[^/]+/lists/read-file$).*)',
};
