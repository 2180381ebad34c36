import { NettingError } from '@/core/errors';
import { clipMime, readClip } from '@/photos/clip';
import { actorOf } from '@/services/access/identify-actor';
export const dynamic = 'force-dynamic';

/** A clip as MP4, made now where it is not there yet; in parts where a player asks for a part. */
export async function GET(request: Request, { params }: { params: Promise<{ hash: string }> }): Promise<Response> {
  if (!(await actorOf(request.headers))) return new Response(null, { status: 401 });
  const { hash } = await params;
  if (!/^[0-9a-f]{64}$/.test(hash)) return new Response(null, { status: 404 });
  const bytes = await readClip(hash).catch((error: unknown) => {
    if (error instanceof NettingError) return error.message;
    return null;
  });
  if (bytes === null) return new Response(null, { status: 404 });
  if (typeof bytes === 'string') return new Response(bytes, { status: 409 });
  const headers = {
    'content-type': clipMime,
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=31536000, immutable',
  };
  const [, from, to] = /^bytes=(\d+)-(\d*)$/.exec(request.headers.get('range') ?? '') ?? [];
  if (from === undefined) return new Response(new Uint8Array(bytes), { headers });
  const start = Number(from);
  const end = to ? Math.min(Number(to), bytes.length - 1) : bytes.length - 1;
  if (start > end) return new Response(null, { status: 416, headers: { 'content-range': `bytes */${bytes.length}` } });
  return new Response(new Uint8Array(bytes.subarray(start, end + 1)), {
    status: 206,
    headers: { ...headers, 'content-range': `bytes ${start}-${end}/${bytes.length}` },
  });
}
