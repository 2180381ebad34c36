import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/**
 * Writes what comes to the disk without ever holding it whole; nothing of it stays when it breaks off.
 * @param most bytes; one more, and what `tooMuch` makes is thrown
 * @param each told of every piece, such as who reckons with it
 * @returns bytes
 */
export async function keepStream(
  body: AsyncIterable<Uint8Array>,
  path: string,
  { most, tooMuch, each }: { most: number; tooMuch: () => Error; each?: (chunk: Buffer) => unknown },
): Promise<number> {
  let bytes = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _encoding, next) {
      bytes += chunk.length;
      each?.(chunk);
      if (bytes > most) next(tooMuch());
      else next(null, chunk);
    },
  });
  try {
    await pipeline(Readable.from(body), measure, createWriteStream(path));
    return bytes;
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
}
