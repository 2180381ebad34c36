/** A file written while it is sent, so that none is ever whole in memory. */
export function textStream(parts: AsyncGenerator<string>, { type, name }: { type: string; name: string }): Response {
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
  return new Response(stream, {
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
}
