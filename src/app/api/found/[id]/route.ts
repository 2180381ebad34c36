import { actorOf } from '@/services/access/identify-actor';
import { foundPhoto } from '@/services/gathering/found-photo';
export const dynamic = 'force-dynamic';

/** The small picture of a listing that stands on a marketplace and is in no item yet. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  if (!(await actorOf(request.headers))) return new Response(null, { status: 401 });
  const id = Number((await params).id);
  if (!Number.isInteger(id)) return new Response(null, { status: 404 });
  try {
    const bytes = await foundPhoto(id);
    return new Response(new Uint8Array(bytes), {
      headers: { 'content-type': 'image/webp', 'cache-control': 'private, max-age=3600' },
    });
  } catch {
    return new Response(null, { status: 404 });
  }
}
