import { NextResponse, type NextRequest } from 'next/server';
import { contentPolicy } from './server/contentPolicy';
import { refusal } from './server/requestGuard';

/** Stands before every route: turns away foreign hosts and origins, and gives each page its policy. */
export function proxy(request: NextRequest): NextResponse {
  const { headers, method } = request;
  const why = refusal({
    method,
    host: headers.get('host'),
    origin: headers.get('origin'),
    site: headers.get('sec-fetch-site'),
  });
  if (why) return NextResponse.json({ error: { code: 'forbidden', message: why } }, { status: 403 });
  if (request.nextUrl.pathname.startsWith('/_next')) return NextResponse.next();
  if (request.nextUrl.pathname.startsWith('/api')) return answerOfTheApi();
  const nonce = btoa(crypto.randomUUID());
  const policy = contentPolicy(nonce, process.env.NODE_ENV === 'development');
  const forward = new Headers(headers);
  forward.set('x-nonce', nonce);
  forward.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers: forward } });
  response.headers.set('content-security-policy', policy);
  return response;
}

/** Data and sound are the player's own: not to be kept by anything between, shown as a page or read from elsewhere. */
function answerOfTheApi(): NextResponse {
  const response = NextResponse.next();
  response.headers.set('cache-control', 'no-store');
  response.headers.set('cross-origin-resource-policy', 'same-origin');
  response.headers.set('content-security-policy', "default-src 'none'; frame-ancestors 'none'");
  return response;
}

export const config = { matcher: '/:path*' };
