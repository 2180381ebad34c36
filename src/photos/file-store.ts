import { randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { PhotoStore } from './photo-store';

/** A key is a hash, perhaps with a word for what was made of it: never a path. */
export function checkedKey(key: string): string {
  if (!/^[\w-]+(\.[a-z]+)?$/.test(key)) throw new Error('not a photo key');
  return key;
}

/** Files in a folder; written aside and renamed, so that a half-written one is never seen. */
export function fileStore(folder: string): PhotoStore {
  const pathOf = (key: string) => join(folder, checkedKey(key).slice(0, 2), key);
  return {
    async has(key) {
      return stat(pathOf(key)).then(
        () => true,
        () => false,
      );
    },
    read: async (key) => readFile(pathOf(key)),
    async write(key, bytes) {
      const path = pathOf(key);
      await mkdir(dirname(path), { recursive: true });
      const aside = `${path}.${randomUUID()}`;
      try {
        await writeFile(aside, bytes);
        await rename(aside, path);
      } catch (error) {
        // On a full disk a part of it may stand there.
        await rm(aside, { force: true });
        throw error;
      }
    },
    remove: async (key) => rm(pathOf(key), { force: true }),
  };
}

/** The keys in a folder that begin with two letters; one that is being written just now has a second ending. */
export const fileNames = async (folder: string, start: string): Promise<string[]> =>
  (await readdir(join(folder, start)).catch((): string[] => [])).filter((one) => one.split('.').length <= 2);
