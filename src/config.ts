import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { z } from 'zod';

type Secrets = {
  databasePassword: string;
  appSecret: string;
  /** What was sealed before the key was changed can be read as long as this is kept. */
  previousSecret?: string;
};

export type ObjectSettings = {
  endpoint: string;
  region: string;
  bucket: string;
  /** Before every key, so that several may use one bucket. */
  prefix: string;
  keyId: string;
  secretKey: string;
};

/**
 * What is secret may stand in a file of its own, named by the same variable with `_FILE` after it: neither a list of
 * processes nor what is written of a container shows it then.
 */
const secretOf = (name: string): string | undefined => {
  const file = process.env[`${name}_FILE`];
  return file ? readFileSync(/* turbopackIgnore: true */ file, 'utf8').trim() : process.env[name];
};

/** A store of photos beside the data folder; null without a bucket. */
function objectSettings(): ObjectSettings | null {
  const bucket = process.env.NETTING_S3_BUCKET;
  if (!bucket) return null;
  return z
    .object({
      endpoint: z.url('NETTING_S3_ENDPOINT must be an address'),
      region: z.string(),
      bucket: z.string(),
      prefix: z.string().regex(/^[\w./-]*$/, 'NETTING_S3_PREFIX may hold letters, digits, dots and slashes'),
      keyId: z.string('NETTING_S3_KEY is missing').min(1),
      secretKey: z.string('NETTING_S3_SECRET is missing').min(1),
    })
    .parse({
      endpoint: process.env.NETTING_S3_ENDPOINT,
      region: process.env.NETTING_S3_REGION ?? 'us-east-1',
      bucket,
      prefix: process.env.NETTING_S3_PREFIX ?? '',
      keyId: process.env.NETTING_S3_KEY,
      secretKey: secretOf('NETTING_S3_SECRET'),
    });
}

/** Where things are, from the environment with the documented defaults. Read once a process. */
export const config = {
  port: Number(process.env.NETTING_PORT ?? 4300),
  marketsPort: Number(process.env.NETTING_MARKETS_PORT ?? 4400),
  databaseHost: process.env.NETTING_DB_HOST ?? '127.0.0.1',
  databasePort: Number(process.env.NETTING_DB_PORT ?? 23306),
  databaseUser: process.env.NETTING_DB_USER ?? 'netting',
  databaseName: process.env.NETTING_DB_NAME ?? 'netting',
  dataFolder: resolve(/* turbopackIgnore: true */ process.env.NETTING_DATA ?? '.data'),
  /** How long a marketplace may take to show what it has just done, in milliseconds. */
  readsLagMs: Number(process.env.NETTING_READS_LAG_MS ?? 60_000),
  /** Further names under which the shop is reached. */
  hosts: (process.env.NETTING_HOSTS ?? '').split(',').flatMap((one) => one.trim() || []),
  /** Photos in a store of objects; null: in the data folder. */
  objects: objectSettings(),
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

/** With which metrics are asked for; without one there are none. */
export const metricsKey = (): string | undefined => secretOf('NETTING_METRICS_KEY');

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
const definedOf = (told: Record<string, string | undefined>) =>
  Object.fromEntries(Object.entries(told).filter(([, value]) => value));

/**
 * Passwords and keys: from the environment, or as they were made at the first start; that file is readable by its owner
 * alone.
 */
export function readSecrets(): Secrets {
  if (secrets) return secrets;
  const told = {
    databasePassword: secretOf('NETTING_DB_PASSWORD'),
    appSecret: secretOf('NETTING_SECRET'),
    previousSecret: secretOf('NETTING_SECRET_PREVIOUS'),
  };
  const parsed: unknown =
    told.databasePassword && told.appSecret
      ? told
      : { ...JSON.parse(readFileSync(join(config.dataFolder, 'secrets.json'), 'utf8')), ...definedOf(told) };
  const { databasePassword, appSecret, previousSecret } = parsed as Partial<Secrets>; // checked in the next line
  if (!databasePassword || !appSecret) throw new Error(`${config.dataFolder}/secrets.json is incomplete`);
  secrets = { databasePassword, appSecret, ...(previousSecret ? { previousSecret } : {}) };
  return secrets;
}
