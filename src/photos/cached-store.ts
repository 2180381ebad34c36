import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileStore } from './file-store';
import type { PhotoStore } from './photo-store';

const mostBytes = 1_000_000_000;
/** It is looked at once in so many writes. */
const lookEvery = 500;

/** What is made of a photo has a word after the hash; it can be made again, so that a copy of it may go. */
const isMade = (key: string) => /[-.]/.test(key);

/** The oldest go until nine tenths of the room are taken. */
async function shrink(folder: string, most: number): Promise<void> {
  const files: { path: string; bytes: number; at: number }[] = [];
  for (const part of await readdir(folder).catch((): string[] => []))
    for (const name of await readdir(join(folder, part)).catch((): string[] => [])) {
      const path = join(folder, part, name);
      const known = await stat(path).catch(() => null);
      if (known) files.push({ path, bytes: known.size, at: known.mtimeMs });
    }
  let bytes = files.reduce((sum, one) => sum + one.bytes, 0);
  if (bytes <= most) return;
  for (const one of files.sort((a, b) => a.at - b.at)) {
    if (bytes <= most * 0.9) break;
    await rm(one.path, { force: true });
    bytes -= one.bytes;
  }
}

/**
 * A store that is far away, with the sizes that are asked for again and again kept near. Names follow from contents, so a
 * copy is never out of date.
 * @param most bytes that the copies may take
 */
export function cached(far: PhotoStore, folder: string, most = mostBytes): PhotoStore {
  const near = fileStore(folder);
  let writes = 0;
  const keep = async (key: string, bytes: Buffer) => {
    // A full disk here is no reason to refuse what is safe there.
    await near.write(key, bytes).catch(() => undefined);
    if (++writes % lookEvery === 0) await shrink(folder, most);
  };
  return {
    has: async (key) => (isMade(key) && (await near.has(key))) || far.has(key),
    async read(key) {
      if (!isMade(key)) return far.read(key);
      const copy = await near.read(key).catch(() => null);
      if (copy) return copy;
      const bytes = await far.read(key);
      await keep(key, bytes);
      return bytes;
    },
    async write(key, bytes) {
      await far.write(key, bytes);
      if (isMade(key)) await keep(key, bytes);
    },
    async remove(key) {
      await near.remove(key);
      await far.remove(key);
    },
  };
}
