import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { memoryOf } from '../support/memory.mjs';

export const programs = ['worker', 'tasks', 'web', 'database', 'marketplaces'];

/** What every program holds in memory, in megabytes. */
export const memory = (processes) =>
  Object.fromEntries(programs.map((name) => [name, Math.round(memoryOf(processes.pid(name)) ?? 0)]));

/** Bytes below a folder. */
const bytesIn = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true }).reduce((sum, one) => {
    if (!one.isFile()) return sum;
    try {
      return sum + statSync(join(one.parentPath, one.name)).size;
    } catch {
      return sum;
    }
  }, 0);

/** What lies on disk, in megabytes: the shop's own tables, the server's logs besides, photos. */
export const onDisk = (dataFolder) => {
  const mega = (path) => Math.round(bytesIn(join(dataFolder, path)) / 1_048_576);
  return { tables: mega('mariadb/netting'), server: mega('mariadb'), photos: mega('photos') };
};
