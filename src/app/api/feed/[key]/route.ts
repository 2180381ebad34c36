import { feedFor } from '@/services/summaries/feed';

export const dynamic = 'force-dynamic';

/** What needs a person, a day an entry, as an Atom feed; its address is its key. */
export async function GET(_request: Request, { params }: { params: Promise<{ key: string }> }): Promise<Response> {
  const feed = await feedFor((await params).key);
  if (feed === null) return new Response('There is no feed at this address', { status: 404 });
  return new Response(feed, {
    headers: { 'content-type': 'application/atom+xml; charset=utf-8', 'cache-control': 'private, max-age=300' },
  });
}
