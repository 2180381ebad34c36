import { type Derivative, derivatives, readDerivative } from '@/photos/derivatives';
import { photoStore } from '@/photos/store';
import { actorOf } from '@/services/access/identify-actor';
export const dynamic = 'force-dynamic';

/** A photo in one of its sizes, by content hash: it never changes, so browsers may keep it. */
export async function GET(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  if (!(await actorOf(request.headers))) return new Response(null, { status: 401 });
  const hit = /^([0-9a-f]{64})-([a-z]+)$/.exec((await params).name);
  const size = hit?.[2];
  if (hit?.[1] && size === 'original') return original(hit[1]);
  if (!hit?.[1] || !size || !(size in derivatives)) return new Response(null, { status: 404 });
  try {
    const bytes = await readDerivative(hit[1], size as Derivative); // tested one line above
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': size === 'market' ? 'image/jpeg' : 'image/webp',
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  } catch {
    return new Response(null, { status: 404 });
  }
}

/** The file as it came, to be worked on; its kind is left to the browser, which shows pictures only. */
async function original(hash: string): Promise<Response> {
  try {
    return new Response(new Uint8Array(await photoStore.read(hash)), {
      headers: {
        'content-type': 'application/octet-stream',
        'content-disposition': 'attachment',
        'x-content-type-options': 'nosniff',
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  } catch {
    return new Response(null, { status: 404 });
  }
}
