import { createHash, timingSafeEqual } from 'node:crypto';
import { metricsKey } from '@/config';
import { metricsText } from '@/http/metrics';
import { problemOf } from '@/http/problem';

export const dynamic = 'force-dynamic';

const hashed = (text: string) => createHash('sha256').update(text).digest();

/** For whoever watches from outside, with the key that the settings name; without one there is nothing here. */
export async function GET(request: Request): Promise<Response> {
  const key = metricsKey();
  if (!key) return new Response(null, { status: 404 });
  if (!timingSafeEqual(hashed(request.headers.get('authorization') ?? ''), hashed(`Bearer ${key}`)))
    return new Response(null, { status: 401, headers: { 'www-authenticate': 'Bearer' } });
  try {
    const { type, text } = await metricsText();
    return new Response(text, { headers: { 'content-type': type, 'cache-control': 'no-store' } });
  } catch (error) {
    return problemOf(error);
  }
}
