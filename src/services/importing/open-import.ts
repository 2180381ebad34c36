import { mkdir } from 'node:fs/promises';
import { fetchShared } from '../../photos/shared-file';
import { importFolder } from './import-path';

/** A file that is read in, to be opened here: fetched where another machine took it. */
export async function openImport(path: string): Promise<string> {
  await mkdir(importFolder(), { recursive: true });
  await fetchShared(path);
  return path;
}
