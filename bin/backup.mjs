#!/usr/bin/env node
// Keeps everything of a running system in one file: the database as it is at one moment, the photos and the keys.
// Usage: npm run backup [-- FILE]. The file holds the keys to the marketplaces: keep it like a password.
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  chmodSync,
  closeSync,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { checkNode, packagesToRun, prepareMachine } from './lib/install.mjs';
import { portIsFree } from './lib/processes.mjs';
import { fail, say } from './lib/say.mjs';
import { prepareDataFolder, readSettings, root } from './lib/settings.mjs';

checkNode();
await prepareMachine(packagesToRun, { modules: false });
const settings = readSettings();
if (await portIsFree(settings.databasePort)) fail('Netting is not running. Start it with npm start, then ask again.');
const secrets = prepareDataFolder(settings);
const day = new Date().toISOString().replace(/[:.]/g, '-').slice(0, 19);
const file = resolve(process.argv[2] ?? join(root, `netting-${day}.tar.gz`));
mkdirSync(dirname(file), { recursive: true });
const aside = mkdtempSync(join(settings.dataFolder, 'backup-'));
const part = `${file}.part`;

/** Whether its last line says that nothing comes after it. */
function isWhole(path) {
  const size = statSync(path).size;
  const end = Buffer.alloc(Math.min(200, size));
  const opened = openSync(path, 'r');
  readSync(opened, end, 0, end.length, size - end.length);
  closeSync(opened);
  return end.toString('utf8').includes('-- Dump completed');
}

async function dump() {
  const path = join(aside, 'database.sql');
  const child = spawn(
    'mariadb-dump',
    [
      '--no-defaults',
      '--protocol=tcp',
      '--host=127.0.0.1',
      `--port=${settings.databasePort}`,
      '--user=netting',
      // One moment for all tables, while everybody goes on working.
      '--single-transaction',
      '--skip-lock-tables',
      '--hex-blob',
      '--no-tablespaces',
      'netting',
    ],
    { env: { ...process.env, MYSQL_PWD: secrets.databasePassword }, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  // The program may have ended before the last of what it said is on the disk.
  const [[code]] = await Promise.all([
    once(child, 'close'),
    pipeline(child.stdout, createWriteStream(path, { mode: 0o600 })),
  ]);
  if (code !== 0 || !isWhole(path)) throw new Error('The database could not be read.');
}

try {
  const at = new Date().toISOString();
  await dump();
  writeFileSync(join(aside, 'about.json'), JSON.stringify({ product: 'netting', at }));
  // Photos never change under their name, so those of the moment are among those that are there now.
  mkdirSync(join(settings.dataFolder, 'photos'), { recursive: true });
  writeFileSync(part, '', { mode: 0o600 });
  const packed = spawnSync(
    'tar',
    [
      '--create',
      '--gzip',
      '--ignore-failed-read',
      '--warning=no-file-changed',
      '--warning=no-file-removed',
      `--file=${part}`,
      `--directory=${aside}`,
      'about.json',
      'database.sql',
      `--directory=${settings.dataFolder}`,
      'secrets.json',
      'photos',
      ...['filled', 'demo-api-token'].filter((name) => existsSync(join(settings.dataFolder, name))),
    ],
    { stdio: ['ignore', 'inherit', 'inherit'] },
  );
  // 1: a file was written or went while it was read.
  if (packed.status !== 0 && packed.status !== 1) throw new Error('The backup could not be written.');
  chmodSync(part, 0o600);
  renameSync(part, file);
  say(`Kept everything of ${at} in ${basename(file)} (${Math.ceil(statSync(file).size / 2 ** 20)} MB): ${file}`);
  say('It holds the keys to your marketplaces. Keep it where only you can read it.');
} catch (error) {
  rmSync(part, { force: true });
  console.error(error.message);
  process.exitCode = 1;
} finally {
  rmSync(aside, { recursive: true, force: true });
}
