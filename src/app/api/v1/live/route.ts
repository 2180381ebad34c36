import { NettingError } from '@/core/errors';
import { problemOf } from '@/http/problem';
import { actorOf } from '@/services/access/identify-actor';
import { type LiveNews, subscribeLive } from '@/services/outbox/live';

export const dynamic = 'force-dynamic';

const beatMs = 15_000;

/** News for an open page as server-sent events (WHATWG HTML, section 9.2). */
export async function GET(request: Request): Promise<Response> {
  if (!(await actorOf(request.headers)))
    return problemOf(new NettingError('not-signed-in', 'Sign in, or send an API token', { fix: 'Sign in' }));
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          end();
        }
      };
      const tell = (news: LiveNews) => send(`data: ${JSON.stringify(news)}\n\n`);
      send('retry: 1000\n\n');
      const off = subscribeLive(tell);
      // A line now and then keeps the connection open and finds out when nobody listens any more.
      const beat = setInterval(() => send(': still here\n\n'), beatMs);
      end = () => {
        off();
        clearInterval(beat);
      };
      request.signal.addEventListener('abort', end);
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
