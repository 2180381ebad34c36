import { PassThrough, pipeline, Readable } from 'node:stream';

/** A file that is written while it is sent; what breaks in its middle breaks the answer off, too. */
export function fileResponse(stream: Readable, { mime, name }: { mime: string; name: string }): Response {
  // Text becomes bytes.
  const bytes = new PassThrough();
  pipeline(stream, bytes, () => undefined);
  return new Response(Readable.toWeb(bytes) as ReadableStream<Uint8Array>, {
    // a stream of bytes
    headers: {
      'content-type': mime,
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store, no-transform',
    },
  });
}
