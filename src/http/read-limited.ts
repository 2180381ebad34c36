import { NettingError } from '../core/errors';

/** Reads a body up to a limit, also when it does not say how long it is. */
export async function readLimited(request: Request, most: number): Promise<Buffer> {
  const tooLong = new NettingError('photo-too-large', `At most ${Math.floor(most / 1_000_000)} MB can be sent at once`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLong;
  const parts: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    length += value.length;
    if (length > most) throw tooLong;
    parts.push(value);
  }
  return Buffer.concat(parts);
}
