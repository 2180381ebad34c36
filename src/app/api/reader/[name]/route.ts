import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

const module = 'zxing_reader.wasm';
const path = join(process.cwd(), 'node_modules', 'zxing-wasm', 'dist', 'reader', module);

/** The module that reads codes in pictures, for the camera of a page: it ships with the application. */
export async function GET(_request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  if ((await params).name !== module) return new Response(null, { status: 404 });
  return new Response(new Uint8Array(await readFile(path)), {
    headers: { 'content-type': 'application/wasm', 'cache-control': 'private, max-age=86400' },
  });
}
