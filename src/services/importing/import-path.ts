import { join } from 'node:path';
import { config } from '../../config';

/** Where a file that is read in lies until it is forgotten. */
export const importFolder = (): string => join(config.dataFolder, 'imports');
export const importPath = (contents: string): string => join(importFolder(), `${contents}.table`);
/** The ZIP that a table came in, with its photos. */
export const archivePath = (contents: string): string => join(importFolder(), `${contents}.zip`);
