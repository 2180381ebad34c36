import { stack } from './stack';

const key = () => ({ authorization: `Bearer ${stack.token}`, connection: 'close' });

/** Sends a file to be read in. */
export async function sendFile(
  name: string,
  contents: string | Buffer,
): Promise<{ status: number; id: number; title: string }> {
  const response = await fetch(`${stack.base}/api/v1/imports`, {
    method: 'POST',
    headers: { ...key(), 'content-type': 'application/octet-stream', 'x-file-name': encodeURIComponent(name) },
    body: typeof contents === 'string' ? contents : new Uint8Array(contents),
  });
  const body = (await response.json()) as { id?: number; title?: string };
  return { status: response.status, id: body.id ?? 0, title: body.title ?? '' };
}

/** What is answered as a file. */
export async function download(path: string): Promise<{ status: number; type: string; bytes: Buffer }> {
  const response = await fetch(`${stack.base}/api/v1${path}`, { headers: key() });
  return {
    status: response.status,
    type: response.headers.get('content-type') ?? '',
    bytes: Buffer.from(await response.arrayBuffer()),
  };
}
