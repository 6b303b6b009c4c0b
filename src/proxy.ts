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
  if (request.nextUrl.pathname.startsWith('/api') || request.nextUrl.pathname.startsWith('/_next'))
    return NextResponse.next();
  const nonce = btoa(crypto.randomUUID());
  const policy = contentPolicy(nonce, process.env.NODE_ENV === 'development');
  const forward = new Headers(headers);
  forward.set('x-nonce', nonce);
  forward.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers: forward } });
  response.headers.set('content-security-policy', policy);
  return response;
}

export const config = { matcher: '/:path*' };
