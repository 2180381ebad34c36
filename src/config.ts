import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { z } from 'zod';

type Secrets = { databasePassword: string; appSecret: string };

/** Where things are, from the environment with the documented defaults. Read once a process. */
export const config = {
  port: Number(process.env.NETTING_PORT ?? 4300),
  marketsPort: Number(process.env.NETTING_MARKETS_PORT ?? 4400),
  databasePort: Number(process.env.NETTING_DB_PORT ?? 23306),
  databaseName: process.env.NETTING_DB_NAME ?? 'netting',
  dataFolder: resolve(/* turbopackIgnore: true */ process.env.NETTING_DATA ?? '.data'),
  /** How long a marketplace may take to show what it has just done, in milliseconds. */
  readsLagMs: Number(process.env.NETTING_READS_LAG_MS ?? 60_000),
  host: process.env.NETTING_HOST ?? '127.0.0.1',
  get baseUrl(): string {
    return process.env.NETTING_URL ?? `http://127.0.0.1:${this.port}`;
  },
  get marketsUrl(): string {
    return process.env.NETTING_MARKETS_URL ?? `http://127.0.0.1:${this.marketsPort}`;
  },
  /** The printer of labels: it takes PDFs over HTTP. */
  get printerUrl(): string {
    return process.env.NETTING_PRINTER_URL ?? `${this.marketsUrl}/printer/api`;
  },
};

const fileSchema = z.object({ insideOrigins: z.array(z.string()).default([]) });

/**
 * Origins inside one's own network that may be told something, such as `http://192.168.1.5:8080`: written by hand into
 * `settings.json` in the data folder. Read each time, so that it holds at once; without the file there are none.
 */
export function insideOrigins(): string[] {
  try {
    return fileSchema.parse(JSON.parse(readFileSync(join(config.dataFolder, 'settings.json'), 'utf8'))).insideOrigins;
  } catch {
    return [];
  }
}

let secrets: Secrets | null = null;

/** Passwords and keys made at the first start; the file is readable by its owner alone. */
export function readSecrets(): Secrets {
  if (secrets) return secrets;
  const parsed: unknown = JSON.parse(readFileSync(join(config.dataFolder, 'secrets.json'), 'utf8'));
  const { databasePassword, appSecret } = parsed as Partial<Secrets>; // checked in the next line
  if (!databasePassword || !appSecret) throw new Error(`${config.dataFolder}/secrets.json is incomplete`);
  secrets = { databasePassword, appSecret };
  return secrets;
}
