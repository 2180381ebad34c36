#!/usr/bin/env node
// Brings a backup back into an empty data folder. Usage: npm run restore -- FILE. Afterwards: npm start.
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  chmodSync,
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { join, resolve } from 'node:path';
import { checkNode, packagesToRun, prepareMachine } from './lib/install.mjs';
import { startDatabase } from './lib/mariadb.mjs';
import { checkPorts, Processes } from './lib/processes.mjs';
import { fail, say } from './lib/say.mjs';
import { environmentOf, prepareDataFolder, readSettings } from './lib/settings.mjs';
import { runScript } from './lib/stack.mjs';

checkNode();
const [given] = process.argv.slice(2);
if (!given) fail('Say which file: npm run restore -- FILE');
const file = resolve(given);
if (!existsSync(file)) fail(`There is no file ${file}.`);
const settings = readSettings();
if (existsSync(settings.dataFolder) && readdirSync(settings.dataFolder).length > 0)
  fail(
    `${settings.dataFolder} is not empty. A backup is brought back into an empty folder: move that one away, or name another with NETTING_DATA.`,
  );
const names = spawnSync('tar', ['--list', '--gzip', `--file=${file}`], { encoding: 'utf8', maxBuffer: 2 ** 30 });
const isInside = (name) =>
  /^(about\.json|database\.sql|secrets\.json|filled|demo-api-token|photos(\/[\w-]+)*(\/[\w.-]*)?)$/.test(name);
const all = names.stdout?.split('\n').filter(Boolean) ?? [];
if (names.status !== 0 || !['about.json', 'database.sql', 'secrets.json'].every((name) => all.includes(name)))
  fail(`${file} is no backup of Netting, or it is damaged.`);
if (!all.every(isInside) || all.some((name) => name.includes('..')))
  fail(`${file} holds something that does not belong into a backup.`);

await prepareMachine(packagesToRun);
await checkPorts(settings, ['databasePort']);
mkdirSync(settings.dataFolder, { recursive: true, mode: 0o700 });
const sql = join(settings.dataFolder, 'database.sql');
const unpack = () => {
  const { status } = spawnSync(
    'tar',
    ['--extract', '--gzip', '--no-same-owner', `--file=${file}`, `--directory=${settings.dataFolder}`],
    { stdio: ['ignore', 'inherit', 'inherit'] },
  );
  if (status !== 0) throw new Error(`${file} is damaged.`);
  chmodSync(join(settings.dataFolder, 'secrets.json'), 0o600);
};

async function load(password) {
  const child = spawn(
    'mariadb',
    [
      '--no-defaults',
      '--protocol=tcp',
      '--host=127.0.0.1',
      `--port=${settings.databasePort}`,
      '--user=netting',
      '--max-allowed-packet=64M',
      'netting',
    ],
    { env: { ...process.env, MYSQL_PWD: password }, stdio: ['pipe', 'inherit', 'inherit'] },
  );
  createReadStream(sql).pipe(child.stdin);
  child.stdin.on('error', () => undefined);
  const [code] = await once(child, 'close');
  if (code !== 0) throw new Error('The database of the backup could not be read in.');
}

let processes = null;
try {
  unpack();
  const { at } = JSON.parse(readFileSync(join(settings.dataFolder, 'about.json'), 'utf8'));
  const secrets = prepareDataFolder(settings);
  const env = environmentOf(settings);
  processes = new Processes(settings.dataFolder, env);
  await startDatabase(processes, settings, secrets);
  await load(secrets.databasePassword);
  await runScript('src/db/migrate.ts', env);
  await runScript('src/worker/after-restore.ts', env);
  rmSync(sql, { force: true });
  rmSync(join(settings.dataFolder, 'about.json'), { force: true });
  // The next start adds no demo data.
  if (!existsSync(join(settings.dataFolder, 'filled'))) writeFileSync(join(settings.dataFolder, 'filled'), 'restored');
  say(`Everything of ${at} is back in ${settings.dataFolder}.`);
  say('Start with npm start. Every marketplace is heard and compared before anything is sent.');
} catch (error) {
  console.error(error.message);
  console.error(`Nothing was started. Empty ${settings.dataFolder} before you try again.`);
  process.exitCode = 1;
} finally {
  await processes?.stopAll();
}
