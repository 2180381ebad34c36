import { type NextRequest, NextResponse } from 'next/server';
import { contentPolicy } from './web/headers';

/** Every page gets a number used once: scripts that do not carry it are not carried out. */
export function proxy(request: NextRequest): NextResponse {
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(18))).toString('base64');
  const policy = contentPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const answer = NextResponse.next({ request: { headers } });
  answer.headers.set('content-security-policy', policy);
  return answer;
}

// Only pages: what programs ask for, and files, are told elsewhere.
export const config = { matcher: '/((?!api/|_next/|.*\\.[a-z0-9]+$).*)' };
