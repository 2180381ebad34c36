import { buffer } from 'node:stream/consumers';
import { ZipFile } from 'yazl';

/** A ZIP of these files. */
export async function zipOf(files: Record<string, string | Buffer>): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [name, contents] of Object.entries(files)) zip.addBuffer(Buffer.from(contents), name);
  zip.end();
  return buffer(zip.outputStream as NodeJS.ReadableStream & AsyncIterable<Buffer>); // a stream of Node's
}

/** The same, whose list says that its files unpack to so many bytes each. */
export function sayingSizes(zip: Buffer, bytes: number): Buffer {
  const lying = Buffer.from(zip);
  for (let at = lying.indexOf('PK\u0001\u0002'); at >= 0; at = lying.indexOf('PK\u0001\u0002', at + 4))
    lying.writeUInt32LE(bytes, at + 24);
  return lying;
}
