import { once } from 'node:events';
import type { Readable } from 'node:stream';
import { type Entry, open, type ZipFile } from 'yauzl';
import { unreadable } from './errors';
import { limits } from './limits';

const opened = (path: string): Promise<ZipFile> =>
  new Promise((resolve, reject) =>
    open(path, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, zip) =>
      error ? reject(unreadable('This file is packed, and broken')) : resolve(zip),
    ),
  );

const contents = (zip: ZipFile, entry: Entry): Promise<Readable> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))),
  );

export type Packed = { name: string; bytes: number; read(): Promise<Readable> };

const mostEntries = 40_000;

/**
 * Looks at what a ZIP holds, one after the other.
 * @throws {NettingError} when it holds too much: nothing is unpacked to find that out
 */
export async function eachPacked(path: string, look: (one: Packed) => Promise<void>): Promise<void> {
  const zip = await opened(path);
  let bytes = 0;
  let count = 0;
  try {
    await new Promise<void>((resolve, reject) => {
      zip.on('error', () => reject(unreadable('This file is packed, and broken')));
      zip.on('end', resolve);
      zip.on('entry', (entry: Entry) => {
        bytes += entry.uncompressedSize;
        if (++count > mostEntries) return reject(unreadable(`It holds more than ${mostEntries} files`));
        if (bytes > limits.unpackedBytes)
          return reject(
            unreadable(`It unpacks to more than ${limits.unpackedBytes / 1_000_000} MB`, 'Send it in parts'),
          );
        if (entry.fileName.endsWith('/')) return zip.readEntry();
        look({ name: entry.fileName, bytes: entry.uncompressedSize, read: () => contents(zip, entry) })
          .then(() => zip.readEntry())
          .catch(reject);
      });
      zip.readEntry();
    });
  } finally {
    zip.close();
  }
}

/** What a ZIP says of the sizes of its files is held against what is in them, so that nothing unpacks to more. */
export async function checkPacked(path: string): Promise<string[]> {
  const names: string[] = [];
  await eachPacked(path, async ({ name, bytes, read }) => {
    names.push(name);
    if (/sharedStrings\.xml$/i.test(name) && bytes > limits.sharedTextBytes)
      throw unreadable('This workbook holds more text than can be read at once', 'Save it as CSV and read that');
    const stream = await read();
    stream.resume();
    await once(stream, 'end').catch(() => {
      throw unreadable('This file is packed, and broken');
    });
  });
  return names;
}
