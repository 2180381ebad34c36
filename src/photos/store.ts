import { join } from 'node:path';
import { config } from '../config';
import { cached } from './cached-store';
import { fileNames, fileStore } from './file-store';
import { objectNames, objectStore } from './object-store';
import type { PhotoStore } from './photo-store';

const { objects } = config;
const folder = join(config.dataFolder, 'photos');

/** The data folder, or a store of objects that the settings name, with what was made of photos kept near besides. */
export const photoStore: PhotoStore = objects
  ? cached(objectStore(objects), join(config.dataFolder, 'photo-cache'))
  : fileStore(folder);

/** The keys that begin with two letters, for who looks whether all is there. */
export const keysOf = (start: string): Promise<string[]> =>
  objects ? objectNames(objects, start) : fileNames(folder, start);
