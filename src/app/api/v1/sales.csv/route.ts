import { NettingError } from '@/core/errors';
import { problemOf } from '@/http/problem';
import { actorOf } from '@/services/access/identify-actor';
import { exportSales } from '@/services/stock/export-sales';
import { findSalesSchema } from '@/services/stock/find-sales';

export const dynamic = 'force-dynamic';

/** All sales (or those of an account or state) as a CSV file, streamed. */
export async function GET(request: Request): Promise<Response> {
  if (!(await actorOf(request.headers)))
    return problemOf(new NettingError('not-signed-in', 'Sign in, or send an API token', { fix: 'Sign in' }));
  const given = findSalesSchema
    .omit({ before: true, limit: true })
    .safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!given.success) return problemOf(given.error);
  const rows = exportSales(given.data);
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const next = await rows.next();
      if (next.done) controller.close();
      else controller.enqueue(encoder.encode(next.value));
    },
    async cancel() {
      await rows.return(undefined);
    },
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="sales.csv"',
      'cache-control': 'no-store',
    },
  });
}
