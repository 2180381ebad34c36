import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { config } from '../config';

/** Files by key. Four methods and no path, so that another store (S3-compatible) can take its place. */
export type PhotoStore = {
  has(key: string): Promise<boolean>;
  read(key: string): Promise<Buffer>;
  write(key: string, bytes: Buffer): Promise<void>;
  /** Also when it is not there. */
  remove(key: string): Promise<void>;
};

const pathOf = (key: string) => {
  if (!/^[\w-]+(\.[a-z]+)?$/.test(key)) throw new Error('not a photo key');
  return join(config.dataFolder, 'photos', key.slice(0, 2), key);
};

/** Files in the data folder; written aside and renamed, so that a half-written one is never seen. */
export const photoStore: PhotoStore = {
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
