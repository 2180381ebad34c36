import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { NettingError } from '../core/errors';

/** Writes a body to the disk without ever holding it whole. @returns where it lies, and how it is forgotten */
export async function keepBody(request: Request, most: number): Promise<{ path: string; forget: () => Promise<void> }> {
  const path = join(tmpdir(), `netting-${randomUUID()}`);
  const forget = () => rm(path, { force: true });
  let bytes = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _encoding, next) {
      bytes += chunk.length;
      if (bytes > most)
        next(
          new NettingError('photo-too-large', `At most ${most / 1_000_000} MB can be sent at once`, {
            fix: 'Send it in parts',
          }),
        );
      else next(null, chunk);
    },
  });
  try {
    const body = request.body as ReadableStream<Uint8Array> | null; // the same stream by its other name
    await pipeline(body ? Readable.fromWeb(body) : Readable.from([]), measure, createWriteStream(path));
    return { path, forget };
  } catch (error) {
    await forget();
    throw error;
  }
}
