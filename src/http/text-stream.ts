function asResponse(parts: AsyncGenerator<string>, headers: Record<string, string>): Response {
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const next = await parts.next();
      if (next.done) controller.close();
      else controller.enqueue(encoder.encode(next.value));
    },
    async cancel() {
      await parts.return(undefined);
    },
  });
  return new Response(stream, { headers: { ...headers, 'cache-control': 'no-store, no-transform' } });
}

/** A file written while it is sent, so that none is ever whole in memory. */
export const textStream = (parts: AsyncGenerator<string>, { type, name }: { type: string; name: string }): Response =>
  asResponse(parts, {
    'content-type': `${type}; charset=utf-8`,
    'content-disposition': `attachment; filename="${name}"`,
  });

async function* asLines<T>(first: IteratorResult<T>, parts: AsyncGenerator<T>): AsyncGenerator<string> {
  try {
    for (let now = first; !now.done; now = await parts.next()) yield `${JSON.stringify(now.value)}\n`;
  } finally {
    // Nobody listens any more: nothing more is made.
    await parts.return(undefined);
  }
}

/**
 * Values as they come, each a line of JSON. The first one is waited for, so that what cannot be done at all is refused
 * as anything else is.
 */
export async function lineStream<T>(parts: AsyncGenerator<T>): Promise<Response> {
  return asResponse(asLines(await parts.next(), parts), {
    'content-type': 'application/x-ndjson; charset=utf-8',
    'x-accel-buffering': 'no',
  });
}
