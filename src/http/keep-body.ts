import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { NettingError } from '../core/errors';
import { keepStream } from '../files';

/** Writes a body to the disk. @returns where it lies, and how it is forgotten */
export async function keepBody(request: Request, most: number): Promise<{ path: string; forget: () => Promise<void> }> {
  const path = join(tmpdir(), `netting-${randomUUID()}`);
  const body = request.body as ReadableStream<Uint8Array> | null; // the same stream by its other name
  await keepStream(body ? Readable.fromWeb(body) : Readable.from([]), path, {
    most,
    tooMuch: () =>
      new NettingError('photo-too-large', `At most ${most / 1_000_000} MB can be sent at once`, {
        fix: 'Send it in parts',
      }),
  });
  return { path, forget: () => rm(path, { force: true }) };
}
