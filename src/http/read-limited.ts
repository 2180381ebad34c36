import { NettingError } from '../core/errors';

/** What is said before somebody is signed in is short. */
const mostFormBytes = 64_000;

/** Reads a body up to a limit, also when it does not say how long it is. */
export async function readLimited(request: Request, most: number): Promise<Buffer> {
  const tooLong = new NettingError(
    'photo-too-large',
    `At most ${most < 1_000_000 ? `${Math.floor(most / 1_000)} kB` : `${Math.floor(most / 1_000_000)} MB`} can be sent at once`,
  );
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

/** The JSON of a short form; null for what is none. */
export async function readForm(request: Request): Promise<unknown> {
  const text = (await readLimited(request, mostFormBytes)).toString('utf8');
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** The same request with its short body read, for those who read bodies without looking how long they are. */
export async function withForm(request: Request, also: Record<string, unknown> = {}): Promise<Request> {
  const body = await readForm(request);
  const { method, url } = request;
  const headers = new Headers(request.headers);
  headers.delete('content-length');
  headers.delete('transfer-encoding');
  // Where nothing was sent nothing was said of its kind either; any other kind stays what it is, and is refused.
  if (!headers.has('content-type')) headers.set('content-type', 'application/json');
  return new Request(url, {
    method,
    headers,
    body: JSON.stringify({ ...(typeof body === 'object' ? body : {}), ...also }),
  });
}
