const beatMs = 15_000;

/**
 * Server-sent events (WHATWG HTML, section 9.2) for as long as the page is open.
 * @param subscribe calls back with each event's data, until the function that it returns is called
 */
export function eventStream<T>(request: Request, subscribe: (tell: (data: T) => void) => () => void): Response {
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
      send('retry: 1000\n\n');
      const off = subscribe((data) => send(`data: ${JSON.stringify(data)}\n\n`));
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
