import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import type { Encoding } from './table';

const sampleBytes = 65_536;

/** The first bytes of a file. */
export async function startOf(path: string, bytes = sampleBytes): Promise<Buffer> {
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(bytes), 0, bytes, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** Whether every byte of it is UTF-8. */
async function isUtf8(path: string): Promise<boolean> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for await (const chunk of createReadStream(path)) decoder.decode(chunk as Buffer, { stream: true }); // no encoding is set
    decoder.decode();
    return true;
  } catch {
    return false;
  }
}

/** The encoding by its mark, by zero bytes at every second place, or by whether it is UTF-8; else Windows-1252. */
export async function encodingOf(path: string): Promise<Encoding> {
  const start = await startOf(path);
  if (start[0] === 0xff && start[1] === 0xfe) return 'utf-16le';
  if (start[0] === 0xfe && start[1] === 0xff) return 'utf-16be';
  const zeros = [0, 0];
  for (const [at, byte] of start.entries()) if (byte === 0) zeros[at % 2] = (zeros[at % 2] ?? 0) + 1;
  const [even = 0, odd = 0] = zeros;
  if (odd > start.length / 5 && even < odd / 10) return 'utf-16le';
  if (even > start.length / 5 && odd < even / 10) return 'utf-16be';
  return (await isUtf8(path)) ? 'utf-8' : 'windows-1252';
}

/** The text of a file in pieces, without its mark and without NULs. */
export async function* textOf(path: string, encoding: Encoding): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  // In small pieces: what is slow to take apart does not keep others waiting for long.
  for await (const chunk of createReadStream(path, { highWaterMark: 16_384 })) {
    const text = decoder.decode(chunk as Buffer, { stream: true }); // no encoding is set
    yield text.includes('\0') ? text.replaceAll('\0', '') : text;
  }
  yield decoder.decode();
}
