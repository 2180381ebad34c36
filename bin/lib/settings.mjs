import { randomBytes } from 'node:crypto';
import { accessSync, constants, existsSync, mkdirSync, readFileSync, statfsSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fail } from './say.mjs';

export const root = resolve(import.meta.dirname, '..', '..');

/** Settings from the environment, with the documented defaults. */
export function readSettings(defaults = {}) {
  const number = (name, fallback) => {
    const value = Number(process.env[name] ?? fallback);
    if (!Number.isInteger(value) || value < 1 || value > 65535)
      fail(`${name} must be a port number between 1 and 65535, not “${process.env[name]}”.`);
    return value;
  };
  return {
    port: number('NETTING_PORT', defaults.port ?? 4300),
    marketsPort: number('NETTING_MARKETS_PORT', defaults.marketsPort ?? 4400),
    databasePort: number('NETTING_DB_PORT', defaults.databasePort ?? 23306),
    dataFolder: resolve(root, process.env.NETTING_DATA ?? defaults.dataFolder ?? '.data'),
    host: process.env.NETTING_HOST ?? '127.0.0.1',
    redoMegabytes: defaults.redoMegabytes,
    /** What else its processes are told. */
    environment: defaults.environment,
    /** How long a marketplace may lag behind its own work; what tests and faults speak to lags only where they say so. */
    readsLagMs: defaults.readsLagMs,
  };
}

/** The environment that every process of one stack gets. */
export const environmentOf = (settings) => ({
  ...process.env,
  NODE_ENV: 'production',
  NETTING_PORT: String(settings.port),
  NETTING_MARKETS_PORT: String(settings.marketsPort),
  NETTING_DB_PORT: String(settings.databasePort),
  NETTING_DATA: settings.dataFolder,
  NETTING_HOST: settings.host,
  NEXT_TELEMETRY_DISABLED: '1',
  ...settings.environment,
  // Pictures are worked on in many threads; with a heap for each of them memory grows for ever.
  MALLOC_ARENA_MAX: '2',
  ...(settings.readsLagMs ? { NETTING_READS_LAG_MS: String(settings.readsLagMs) } : {}),
});

/** Makes the data folder usable, or says why it is not. */
export function prepareDataFolder({ dataFolder }) {
  try {
    mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
    accessSync(dataFolder, constants.W_OK);
    writeFileSync(join(dataFolder, '.write-test'), 'x');
  } catch (error) {
    if (error.code === 'ENOSPC')
      fail(`The disk that holds ${dataFolder} is full. Free some space, or choose another folder with NETTING_DATA.`);
    fail(
      `The data folder ${dataFolder} cannot be written to. Make it writable, or choose another one with NETTING_DATA.`,
    );
  }
  const { bavail, bsize } = statfsSync(dataFolder);
  if (bavail * bsize < 300_000_000)
    fail(`Less than 300 MB are free for ${dataFolder}. Free some space, or choose another folder with NETTING_DATA.`);
  const secretsFile = join(dataFolder, 'secrets.json');
  if (!existsSync(secretsFile)) {
    const secret = () => randomBytes(32).toString('base64url');
    writeFileSync(secretsFile, JSON.stringify({ databasePassword: secret(), appSecret: secret() }), { mode: 0o600 });
  }
  return JSON.parse(readFileSync(secretsFile, 'utf8'));
}
