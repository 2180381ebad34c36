import { problemOf } from '@/http/problem';
import { readLimited } from '@/http/read-limited';
import { receiveWebhook } from '@/services/sync/receive-webhook';

export const dynamic = 'force-dynamic';

/** Signed events from marketplaces. */
export async function POST(request: Request, { params }: { params: Promise<{ key: string }> }): Promise<Response> {
  try {
    const body = (await readLimited(request, 1_000_000)).toString('utf8');
    await receiveWebhook((await params).key, body, Object.fromEntries(request.headers));
    return new Response(null, { status: 204 });
  } catch (error) {
    return problemOf(error);
  }
}
